import { formatQuantity } from '@jubb/core';
import { baseOf, find, type Lead, type SheetFile, type Step } from '@jubb/sheet';
import { isKind, type AnyKeptEntry, type EntryKind, type KeptEntry } from './entries/kept.js';
import type { StepState } from './steps/define-step.js';

/** What must be ready when a step begins, and how far it is. */
export interface LeadState {
  readonly step: Step;
  readonly lead: Lead;
  /** Whether it may be begun now. */
  readonly mayBegin: boolean;
  readonly begun: Begun | undefined;
}

export interface Begun {
  readonly wait: KeptEntry<'wait'>;
  /** ISO times: from when it is ready, and until when; for ever where nothing is said. */
  readonly from: string;
  readonly until?: string;
}

/** Why a step cannot begin yet: it is not begun, it is on its way, or its time is past. */
export type NotReady =
  | { readonly why: 'not begun'; readonly lead: Lead }
  | { readonly why: 'under way'; readonly lead: Lead; readonly begun: Begun }
  | { readonly why: 'too late'; readonly lead: Lead; readonly begun: Begun };

/** The work ahead of steps that are not done, in the order in which it falls due. */
export function leadsOf(steps: readonly StepState[], live: readonly AnyKeptEntry[]): readonly LeadState[] {
  return steps.flatMap(({ step, done }) => {
    const { lead } = step;
    if (!lead || done || isBegunAt(step, live)) return [];
    const mayBegin = lead.from === undefined || steps.some((one) => one.step.ref === lead.from && one.done);
    return [{ step, lead, mayBegin, begun: begunOf(step, lead, live) }];
  });
}

/** What is asked of a step's beginning is over once something was done at it. */
function isBegunAt({ ref }: Step, live: readonly AnyKeptEntry[]): boolean {
  return live.some((entry) => entry.step === ref && ACTS.has(entry.kind));
}

/** Acts by which a step goes on: none of them comes before its time. */
const ACTS: ReadonlySet<EntryKind> = new Set<EntryKind>([
  'tick',
  'pull',
  'fitted',
  'seal-fitted',
  'end-play',
  'nut',
  'came-off',
  'reading',
  'look',
  'pattern',
  'fluid',
]);

function begunOf({ ref }: Step, { what, most }: Lead, live: readonly AnyKeptEntry[]): Begun | undefined {
  const wait = live.filter(isKind('wait')).findLast((entry) => entry.step === ref && entry.payload.what === what);
  if (!wait) return undefined;
  const over = live.filter(isKind('wait-over')).find(({ payload }) => payload.wait === wait.id);
  const from = over?.takenAt ?? later(wait.takenAt, wait.payload.seconds);
  return { wait, from, ...(most === undefined ? {} : { until: later(wait.takenAt, baseOf(most, 'time')) }) };
}

function later(at: string, seconds: number): string {
  return new Date(Date.parse(at) + seconds * 1000).toISOString();
}

/** Why a step cannot begin at an instant for what it needs ready; nothing where it can. */
export function notReady(step: Step, live: readonly AnyKeptEntry[], at: string): NotReady | undefined {
  const { lead } = step;
  if (!lead || isBegunAt(step, live)) return undefined;
  const begun = begunOf(step, lead, live);
  if (!begun) return { why: 'not begun', lead };
  if (begun.from > at) return { why: 'under way', lead, begun };
  return begun.until !== undefined && begun.until < at ? { why: 'too late', lead, begun } : undefined;
}

/** Steps whose clock holds a step: those that it names, and the one right before it. */
function clockedBefore(sheet: SheetFile, step: Step): readonly Step[] {
  const before = sheet.steps[sheet.steps.findIndex(({ ref }) => ref === step.ref) - 1];
  return [...(before ? [before] : []), ...(step.after ?? []).flatMap((ref) => find(sheet.steps, ref) ?? [])].filter(({ wait }) => wait);
}

/** Whether a clock, or something to be ready, may hold what is done at a step, by its sheet. */
export function mayBeTimed(sheet: SheetFile, step: Step | undefined, kind: EntryKind): boolean {
  return step !== undefined && ACTS.has(kind) && (step.lead !== undefined || clockedBefore(sheet, step).length > 0);
}

/** "waits: front bearing into the oven at 90 °C first". */
export function notReadyWords(missing: NotReady, at: string): string {
  const { what, most } = missing.lead;
  switch (missing.why) {
    case 'not begun':
      return `waits: ${what} first`;
    case 'under way':
      return `waits, ${leftWords(missing.begun.from, at)}: ${what}`;
    case 'too late':
      return `is too late: ${what} holds for ${most ?? ''} and no longer; begin that anew`;
  }
}

export function leftWords(until: string, at: string): string {
  const minutes = Math.max(1, Math.ceil((Date.parse(until) - Date.parse(at)) / 60_000));
  return `${formatQuantity(minutes * 60, 'time', 'min')} to go`;
}
