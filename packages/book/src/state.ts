import {
  type Fate,
  type Stage,
  STAGES,
  STAGE_NAMES,
  type Part,
  type Setting,
  type SheetFile,
  type Step,
  find,
  partName,
} from '@jubb/sheet';
import { buildList, notIn, type BuildLine } from './build-list.js';
import type { EntryKind } from './entries/entry.js';
import { isKind, liveOf, type AnyKeptEntry, type KeptEntry } from './entries/kept.js';
import { withFound } from './found.js';
import { duesOf, type Due } from './obligations.js';
import { newPartsMissing, newPartWords } from './parts/new-parts.js';
import { fitRun, type FitRun } from './runs/fit-run.js';
import { jointRun, type JointRun } from './runs/joint-run.js';
import { patternRuns, type PatternRun } from './runs/pattern-run.js';
import { readsAsFound, settingRun, sinceBuild, verdictOf, type Bearings, type SettingRun } from './runs/setting-run.js';
import {
  conflictsOf,
  countedOff,
  countedOnce,
  countsOf,
  reconcileCounts,
  unequal,
  type Conflict,
  type CountOf,
  type ReconcileLine,
} from './strip/counts.js';
import { movedOf, openEnds, type Moved, type OpenEnd } from './strip/open-ends.js';
import { workings } from '@jubb/core';

/** Parts that a shop renews whatever the sheet proposes: every word must be in the part's name. */
export interface RenewRule {
  readonly words: string;
  readonly why: string;
}

export interface StepState {
  readonly step: Step;
  readonly done: boolean;
  /** Parts of a step with several acts. */
  readonly progress?: { readonly done: number; readonly total: number };
  /** Why it is not done although something was recorded. */
  readonly problem?: string;
}

/** A wait that nobody has called over yet; by then it may have run out. */
export interface Clock {
  readonly entryId: string;
  readonly what: string;
  readonly step: string | null;
  /** ISO time at which it rings. */
  readonly until: string;
}

/** A mark that was made, and must line up again. */
export interface Mark {
  /** The entry that says so: a line of the ledger, or the mark itself. */
  readonly entryId: string;
  readonly what: string;
  readonly mark: string;
  readonly part?: string;
  readonly met: boolean;
}

export interface Decision {
  readonly part: Part;
  readonly proposed: Fate;
  readonly because: string;
  /** What condemns it or leaves it open, where a reading or a look does. */
  readonly verdict?: 'out' | 'unsure';
  readonly entry?: KeptEntry<'decision'>;
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

interface Context {
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

/** The last of each, in the order in which they first came. */
function latest<T>(entries: readonly T[], keyOf: (entry: T) => string): readonly T[] {
  return [...new Map(entries.map((entry) => [keyOf(entry), entry])).values()];
}

function stepState(step: Step, context: Context): StepState {
  const own = context.live.filter((entry) => entry.step === step.ref);
  const last = own.at(-1);
  const outOf = (done: number, total: number): StepState => ({ step, done: total > 0 && done >= total, progress: { done, total } });
  switch (step.record.kind) {
    case 'arrival':
      return { step, done: own.some((entry) => entry.kind === 'finding') };
    case 'count': {
      const counts = countsOf(context.sheet, step);
      const off = (counted: CountOf): number => countedOff(step, counted, context.ledger);
      const missing = counts.filter((counted) => off(counted) === 0);
      const wrong = counts.find((counted) => off(counted) > 0 && off(counted) !== counted.count);
      const twice = context.conflicts.find(({ entries }) => entries.some((entry) => entry.kind === 'came-off' && entry.step === step.ref));
      if (twice) return { ...outOf(0, counts.length), problem: twiceWords(twice) };
      const problem = wrong
        ? `${partName(context.sheet, wrong.part)}: ${off(wrong)} counted, the sheet says ${wrong.count}`
        : counts.map(({ part }) => unequal(context.sheet, part, context.ledger)).find((words) => words !== undefined);
      return { ...outOf(counts.length - missing.length, counts.length), ...(problem ? { problem } : {}) };
    }
    case 'reading':
    case 'look':
    case 'fluid':
      return { step, done: own.some((entry) => entry.kind === step.record.kind) };
    case 'seal': {
      const verdict = last && verdictOf(last);
      const out = context.live.filter(isKind('old-seal-out')).findLast(({ payload }) => payload.seal === step.record.seal);
      if (out && !out.payload.whole) return { step, done: false, problem: 'pieces of the old one are still in there' };
      return verdict === 'out'
        ? { step, done: false, problem: 'the depth is out' }
        : { step, done: own.some((entry) => entry.kind === 'seal-fitted') };
    }
    case 'decide':
      return outOf(context.decisions.filter((decision) => decision.entry).length, context.decisions.length);
    case 'reconcile': {
      const open = context.reconcile.filter((line) => line.counted !== line.expected);
      const wrong = open.find((line) => line.counted !== undefined);
      const twice = context.conflicts.find(({ entries }) => entries.some((entry) => entry.kind === 'counted'));
      if (twice) return { ...outOf(0, context.reconcile.length), problem: twiceWords(twice) };
      return {
        ...outOf(context.reconcile.length - open.length, context.reconcile.length),
        ...(wrong ? { problem: `${wrong.name}: ${wrong.counted ?? 0} on the bench, ${wrong.expected} came off` } : {}),
      };
    }
    case 'setting': {
      if (readsAsFound(step)) return { step, done: own.some((entry) => entry.kind === 'end-play') };
      const run = context.settings.find((candidate) => candidate.setting.ref === step.record.setting);
      const isSet = run?.phase === 'set';
      return {
        step,
        done: isSet,
        ...(!isSet && run?.tries.at(-1)?.verdict === 'unsure' ? { problem: 'the last reading is unsure' } : {}),
      };
    }
    case 'pattern': {
      const run = context.patterns.find((candidate) => candidate.setting.ref === step.record.setting);
      const isGood = run?.phase === 'good' && run.first.length === 0;
      const isOut = !isGood && run?.tries.at(-1)?.verdict === 'out';
      return { step, done: isGood, ...(isOut ? { problem: 'the last pattern wants a move' } : {}) };
    }
    case 'fit':
      return { step, done: context.fits.some(({ fit, fitted }) => fit.ref === step.record.fit && fitted !== undefined) };
    case 'torque': {
      const run = context.joints.find((candidate) => candidate.joint.ref === step.record.joint);
      return outOf(run?.done ?? 0, run?.total ?? 0);
    }
    case 'proof': {
      const run = context.settings.find((candidate) => candidate.setting.ref === step.record.setting);
      if (!run?.proved) return { step, done: false };
      const { verdict, accepted } = run.proved;
      return verdict === 'in' || accepted !== undefined
        ? { step, done: true }
        : { step, done: false, problem: `${run.setting.name} is ${verdict ?? 'not judged'}` };
    }
    case 'sign':
      return { step, done: own.some((entry) => entry.kind === 'sign') };
    case 'hand-over':
      return { step, done: own.some((entry) => entry.kind === 'handed-over') };
    case 'tick':
      return { step, done: own.some((entry) => entry.kind === 'tick') };
  }
}

function twiceWords({ name, entries }: Conflict): string {
  return `${name} was counted twice: ${entries.map(({ payload }) => payload.count).join(' and ')}; strike what is wrong`;
}

function marksOf(live: readonly AnyKeptEntry[]): readonly Mark[] {
  const met = new Set(live.filter(isKind('mark-met')).map(({ payload }) => payload.mark));
  return live.flatMap((entry): Mark[] => {
    if (entry.kind !== 'mark' && entry.kind !== 'came-off') return [];
    const { mark, part } = entry.payload;
    if (mark === undefined) return [];
    const what = entry.kind === 'mark' ? entry.payload.what : entry.payload.name;
    return [{ entryId: entry.id, what, mark, ...(part === undefined ? {} : { part }), met: met.has(entry.id) }];
  });
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

function decide(sheet: SheetFile, live: readonly AnyKeptEntry[], rules: readonly RenewRule[]): readonly Decision[] {
  return sheet.parts.map((part) => {
    const entry = live.filter(isKind('decision')).findLast((candidate) => candidate.payload.part === part.ref);
    return { part, ...propose(sheet, part, live, rules), ...(entry ? { entry } : {}) };
  });
}

/** What the sheet's policy, the readings, the looks and the shop's rules say of a part, and which of them says it. */
function propose(
  sheet: SheetFile,
  part: Part,
  live: readonly AnyKeptEntry[],
  rules: readonly RenewRule[],
): Pick<Decision, 'proposed' | 'because' | 'verdict'> {
  const intent = live.filter(isKind('intent')).findLast(({ payload }) => payload.part === part.ref)?.payload.intent;
  if (intent === 'sacrifice') return { proposed: 'renew', because: 'spoilt in coming off, as was meant' };
  if (part.policy === 'renew') return { proposed: 'renew', because: 'renewed every time' };
  const rule = rules.find(({ words }) => holdsWords(part.name, words));
  if (rule) return { proposed: 'renew', because: `the shop's rule: ${rule.why}` };
  const limits = sheet.limits.filter((limit) => limit.part === part.ref);
  let open: ReturnType<typeof propose> | undefined;
  for (const limit of limits) {
    const look = live.filter(isKind('look')).findLast((entry) => entry.payload.limit === limit.ref);
    const words = look && find(limit.looks ?? [], look.payload.look);
    if (words?.verdict === 'out') return { proposed: 'renew', because: `${limit.name}: ${words.words}`, verdict: 'out' };
    const reading = live.filter(isKind('reading')).findLast((entry) => entry.payload.limit === limit.ref);
    const verdict = reading && verdictOf(reading);
    if (verdict === 'out') return { proposed: 'renew', because: `${limit.name} is out`, verdict: 'out' };
    if (verdict === 'unsure' || words?.verdict === 'unsure')
      open ??= { proposed: 'reuse', because: `${limit.name} is unsure: measure again or ask`, verdict: 'unsure' };
  }
  for (const entry of live.filter(isKind('worked')).filter(({ payload }) => payload.part === part.ref)) {
    const verdict = verdictOf(entry);
    const bad = entry.working?.output['bad'] ?? entry.working?.output['what'];
    const because =
      `${workings.describe(entry.payload.working)?.title ?? entry.payload.working} ${typeof bad === 'string' ? bad : ''}`.trim();
    if (verdict === 'out') return { proposed: 'renew', because, verdict };
    if (verdict === 'unsure') open ??= { proposed: 'reuse', because: `${because} (unsure: measure again or ask)`, verdict };
  }
  // What is out weighs more than what is unsure, whichever was looked at first.
  if (open) return open;
  const judged = limits.length > 0 ? `${limits.map((limit) => limit.name).join(', ')} in` : 'nothing against it';
  return { proposed: 'reuse', because: part.policy === 'reuse' ? 'goes back as it is' : judged };
}

/** Every word, whole or from its beginning: "seal" is in "Lip seals", "ring" is not in "Spring". */
function holdsWords(name: string, words: string): boolean {
  const inName = name.toLowerCase().split(/[^\p{L}\d]+/u);
  const asked = words
    .toLowerCase()
    .split(/[^\p{L}\d]+/u)
    .filter(Boolean);
  return asked.length > 0 && asked.every((word) => inName.some((one) => one.startsWith(word)));
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
