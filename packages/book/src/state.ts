import { type Stage, STAGES, STAGE_NAMES, type Setting, type SheetFile, type Step } from '@jubb/sheet';
import { buildList, notIn, type BuildLine } from './build-list.js';
import type { EntryKind } from './entries/kept.js';
import { isKind, liveOf, type AnyKeptEntry, type KeptEntry } from './entries/kept.js';
import { withFound } from './found.js';
import { duesOf, type Due } from './obligations.js';
import { newPartsMissing, newPartWords } from './parts/new-parts.js';
import { fitRun, type FitRun } from './runs/fit-run.js';
import { jointRun, type JointRun } from './runs/joint-run.js';
import { patternRuns, type PatternRun } from './runs/pattern-run.js';
import { settingRun, sinceBuild, type Bearings, type SettingRun } from './runs/setting-run.js';
import { conflictsOf, countedOnce, reconcileCounts, twiceWords, type Conflict, type ReconcileLine } from './strip/counts.js';
import { movedOf, openEnds, type Moved, type OpenEnd } from './strip/open-ends.js';
import { type Decision, type RenewRule, decide } from './decisions.js';
import type { StepState } from './steps/define-step.js';
import { stepState } from './steps/registry.js';
import { type Mark, marksOf } from './strip/marks.js';

/** A wait that nobody has called over yet; by then it may have run out. */
export interface Clock {
  readonly entryId: string;
  readonly what: string;
  readonly step: string | null;
  /** ISO time at which it rings. */
  readonly until: string;
}

export interface JobState {
  /** The sheet as this job sees it: with the figures that were found on it. */
  readonly sheet: SheetFile;
  readonly stage: Stage;
  readonly live: readonly AnyKeptEntry[];
  /** Entry id → the entry that strikes it. */
  readonly struck: ReadonlyMap<string, AnyKeptEntry>;
  readonly steps: readonly StepState[];
  readonly ledger: readonly KeptEntry<'came-off'>[];
  readonly reconcile: readonly ReconcileLine[];
  readonly decisions: readonly Decision[];
  readonly openEnds: readonly OpenEnd[];
  /** What was made necessary on this job. */
  readonly dues: readonly Due[];
  /** Moved to get at the unit and not back yet. */
  readonly moved: readonly Moved[];
  readonly conflicts: readonly Conflict[];
  /** Parts that are to be kept or may be spoilt in coming off, where somebody said so. */
  readonly intents: ReadonlyMap<string, 'keep' | 'sacrifice'>;
  readonly oldParts: readonly KeptEntry<'old-part'>[];
  readonly marks: readonly Mark[];
  /** What goes in again, in the order of the build. */
  readonly build: readonly BuildLine[];
  readonly clocks: readonly Clock[];
  readonly joints: readonly JointRun[];
  readonly settings: readonly SettingRun[];
  readonly fits: readonly FitRun[];
  readonly patterns: readonly PatternRun[];
  /** Cautions by the people who read them: each reads them once on a job. */
  readonly cautionsRead: readonly KeptEntry<'caution-read'>[];
  /** What is put off with the customer's knowledge. */
  readonly owed: readonly KeptEntry<'owed'>[];
  readonly signed: KeptEntry<'sign'> | undefined;
  readonly handedOver: KeptEntry<'handed-over'> | undefined;
}

/** What a job's state is, from its entries alone, and what is proposed by the shop's rules. Entries come in the order of their number. */
export function jobState(given: SheetFile, entries: readonly AnyKeptEntry[], rules: readonly RenewRule[] = []): JobState {
  const struck = new Map(entries.flatMap((entry) => (entry.strikes === null ? [] : [[entry.strikes, entry] as const])));
  const live = liveOf(entries);
  const sheet = withFound(given, live);
  const of = <K extends EntryKind>(kind: K): readonly KeptEntry<K>[] => live.filter(isKind(kind)) as unknown as readonly KeptEntry<K>[];
  const ledger = of('came-off');
  const settled = new Set(of('owed-settled').map(({ payload }) => payload.owed));
  const fits = (sheet.fits ?? []).map((fit) => fitRun(fit, live));
  const joints = sheet.joints.map((joint) => jointRun(joint, live));
  const decisions = decide(sheet, live, rules);
  const builtOn = sinceBuild(sheet, live);
  const settings = sheet.settings.map((setting) => settingRun(setting, builtOn, bearingsOf(setting, decisions)));
  const patterns = patternRuns(sheet, live, { settings, joints });
  const marks = marksOf(live);
  const conflicts = conflictsOf(ledger, of('counted'));
  const once = countedOnce(ledger, conflicts);
  const reconcile = reconcileCounts(sheet, once, of('counted'));
  const context = { sheet, live, ledger: once, settings, fits, patterns, joints, decisions, reconcile, conflicts };
  const steps = sheet.steps.map((step) => stepState(step, context));
  return {
    sheet,
    stage: of('stage').at(-1)?.payload.stage ?? 'book-in',
    live,
    struck,
    steps,
    ledger,
    reconcile,
    decisions,
    dues: duesOf(sheet, live),
    openEnds: openEnds(sheet, steps, of('open-end'), of('open-end-closed')),
    moved: movedOf(of('moved'), of('put-back')),
    conflicts,
    intents: new Map(of('intent').map(({ payload }) => [payload.part, payload.intent])),
    oldParts: latest(of('old-part'), ({ payload }) => payload.part ?? payload.name),
    marks,
    build: buildList(sheet, steps, ledger, decisions, marks, live),
    clocks: clocksOf(live),
    joints,
    settings,
    fits,
    patterns,
    cautionsRead: of('caution-read'),
    owed: of('owed').filter(({ id }) => !settled.has(id)),
    signed: of('sign').at(-1),
    handedOver: of('handed-over').at(-1),
  };
}

/** Bearings are used ones where every one that a setting names goes back in. */
function bearingsOf({ bearings = [] }: Setting, decisions: readonly Decision[]): Bearings {
  const fates = decisions.filter(({ part }) => bearings.includes(part.ref)).map(({ entry, proposed }) => entry?.payload.fate ?? proposed);
  return fates.length > 0 && fates.every((fate) => fate === 'reuse') ? 'used' : 'new';
}

/** The last of each, in the order in which they first came. */
function latest<T>(entries: readonly T[], keyOf: (entry: T) => string): readonly T[] {
  return [...new Map(entries.map((entry) => [keyOf(entry), entry])).values()];
}

function clocksOf(live: readonly AnyKeptEntry[]): readonly Clock[] {
  const over = new Set(live.filter(isKind('wait-over')).map(({ payload }) => payload.wait));
  return live
    .filter(isKind('wait'))
    .filter(({ id }) => !over.has(id))
    .map(({ id, payload: { what, seconds }, step, takenAt }) => ({
      entryId: id,
      what,
      step,
      until: new Date(Date.parse(takenAt) + seconds * 1000).toISOString(),
    }));
}

export interface NextAct {
  readonly stage: Stage;
  readonly step?: Step;
  readonly say: string;
}

/** The one thing to do next: in the stage the job is at, else the way on to the next stage. */
export function nextAct(state: JobState): NextAct | undefined {
  if (state.handedOver) return undefined;
  const here = state.steps.find((candidate) => candidate.step.stage === state.stage && !candidate.done);
  if (here) return { stage: state.stage, step: here.step, say: here.step.title };
  const onward = STAGES[STAGES.indexOf(state.stage) + 1];
  return onward ? { stage: onward, say: `Go on to ${STAGE_NAMES[onward]}` } : undefined;
}

/** What still stops the foreman's signature, in words; empty when it may be signed. */
export function stopsSigning(state: JobState): readonly string[] {
  const steps = state.steps.filter(({ step, done }) => !done && step.stage !== 'hand-over' && step.record.kind !== 'sign');
  return [
    ...steps.map(({ step, problem }) => `${STAGE_NAMES[step.stage]}: ${step.title}${problem ? ` (${problem})` : ''}`),
    ...state.dues
      .filter(({ closed, obligation }) => !closed && steps.every(({ step }) => step.ref !== obligation.closedBy))
      .map(({ obligation: { name, why }, by }) => `Made necessary again: ${name} (${by}). ${why}`),
    ...state.marks.filter(({ met }) => !met).map(({ what, mark }) => `Mark not met: ${what}, ${mark}`),
    ...state.conflicts.map(twiceWords),
    ...newPartsMissing(state.sheet, state.live).map((part) => `New, and not said to be here: ${newPartWords(state.sheet, part)}`),
    ...notIn(state.build).map(({ name, count, inNow }) => `Not in yet: ${count - inNow} × ${name}`),
    ...state.moved.map(({ what }) => `Not back where it was: ${what}`),
    ...state.openEnds.map((end) => `Open end: ${end.what}${end.place ? `, ${end.place}` : ''}; closed by: ${end.closes}`),
  ];
}

/** What still stops the hand-over. */
export function stopsHandOver(state: JobState): readonly string[] {
  const unsigned = state.steps
    .filter(({ step, done }) => !done && step.record.kind === 'sign')
    .map(({ step }) => `${STAGE_NAMES[step.stage]}: ${step.title}`);
  const before = state.steps
    .filter(({ step, done }) => !done && step.stage === 'hand-over' && step.record.kind !== 'hand-over')
    .map(({ step }) => `${STAGE_NAMES[step.stage]}: ${step.title}`);
  return [...stopsSigning(state), ...unsigned, ...before];
}

/** Stages that prove what was built, and give it back: what comes before them is done, or its being open has a reason. */
const AFTER_BUILD: ReadonlySet<Stage> = new Set(['prove', 'hand-over']);

/** What is open before a stage that a job is taken on to, in words; empty where it may go on without a word. */
export function openBefore(state: JobState, stage: Stage): readonly string[] {
  if (!AFTER_BUILD.has(stage) || STAGES.indexOf(stage) <= STAGES.indexOf(state.stage)) return [];
  return state.steps
    .filter(
      ({ step, done }) =>
        !done && STAGES.indexOf(step.stage) < STAGES.indexOf(stage) && STAGES.indexOf(step.stage) >= STAGES.indexOf('build'),
    )
    .map(({ step, problem }) => `${STAGE_NAMES[step.stage]}: ${step.title}${problem ? ` (${problem})` : ''}`);
}

export function stageProgress(state: JobState, stage: Stage): { readonly left: number; readonly total: number } {
  const steps = state.steps.filter((candidate) => candidate.step.stage === stage);
  return { left: steps.filter((candidate) => !candidate.done).length, total: steps.length };
}
