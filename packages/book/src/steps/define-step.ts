import { find, type HoldPoint, type RecordKind, type SheetFile, type Step } from '@jubb/sheet';
import type { Decision } from '../decisions.js';
import { isKind, type AnyKeptEntry, type EntryKind, type KeptEntry } from '../entries/kept.js';
import type { LookDue } from '../looks-due.js';
import type { FitRun } from '../runs/fit-run.js';
import type { JointRun } from '../runs/joint-run.js';
import type { PatternRun } from '../runs/pattern-run.js';
import type { SettingRun } from '../runs/setting-run.js';
import type { Conflict, ReconcileLine } from '../strip/counts.js';

/** How a step stands. */
export interface StepState {
  readonly step: Step;
  readonly done: boolean;
  /** Parts of a step with several acts. */
  readonly progress?: { readonly done: number; readonly total: number };
  /** Why it is not done although something was recorded. */
  readonly problem?: string;
  /** It is done, and this is to be looked at before it is home. */
  readonly looks?: readonly LookDue[];
  /** It is done, and somebody has to look at it before the work goes on. */
  readonly holds?: HoldPoint;
}

export type Stands = Omit<StepState, 'step' | 'holds' | 'looks'>;

/** What of the job a step is told by. */
export interface StepContext {
  readonly sheet: SheetFile;
  readonly live: readonly AnyKeptEntry[];
  readonly ledger: readonly KeptEntry<'came-off'>[];
  readonly settings: readonly SettingRun[];
  readonly fits: readonly FitRun[];
  readonly patterns: readonly PatternRun[];
  readonly joints: readonly JointRun[];
  readonly decisions: readonly Decision[];
  readonly reconcile: readonly ReconcileLine[];
  readonly conflicts: readonly Conflict[];
}

/** Whether the act of a step is done, whatever is to be looked at after it. */
export function isActed({ done, looks, holds }: StepState): boolean {
  return done || looks !== undefined || holds !== undefined;
}

/** All there is to know of what a step records. */
export interface StepKind<R extends RecordKind> {
  readonly record: R;
  /** Where it stands, by its own entries and by the job. */
  readonly stands: (step: Step, own: readonly AnyKeptEntry[], job: StepContext) => Stands;
  /** The entry that it ends in, where that is one that not everyone may make. */
  readonly endsIn?: EntryKind;
  /** The kind of tool that it cannot do without. */
  readonly tool?: (step: Step, sheet: SheetFile) => string | undefined;
  /** Never done while something before it is open. */
  readonly holdsAll?: true;
}

export function defineStep<R extends RecordKind>(kind: StepKind<R>): StepKind<R> {
  return kind;
}

export function outOf(done: number, total: number): Stands {
  return { done: total > 0 && done >= total, progress: { done, total } };
}

/** Done by an entry of a kind at the step itself. */
export function byEntry(kind: EntryKind): (step: Step, own: readonly AnyKeptEntry[]) => Stands {
  return (_, own) => ({ done: own.some(isKind(kind)) });
}

export function limitTool({ record }: Step, sheet: SheetFile): string | undefined {
  return find(sheet.limits, record.limit)?.tool;
}

export function settingTool({ record }: Step, sheet: SheetFile): string | undefined {
  return find(sheet.settings, record.setting)?.tool;
}

export function settingAt({ record }: Step, { settings }: StepContext): SettingRun | undefined {
  return settings.find(({ setting }) => setting.ref === record.setting);
}
