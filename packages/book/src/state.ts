import { type Stage, STAGES, STAGE_NAMES, type Setting, type SheetFile, type Step } from '@jubb/sheet';
import { notTriedAgain } from './before-after.js';
import { buildList, notIn, type BuildLine } from './build-list.js';
import type { EntryKind } from './entries/kept.js';
import { isKind, liveOf, type AnyKeptEntry, type KeptEntry } from './entries/kept.js';
import { laddersOpen, type Ladder } from './ladder.js';
import { leadsOf, type LeadState } from './leads.js';
import { duesOf, type Due } from './obligations.js';
import { newPartsMissing, newPartWords } from './parts/new-parts.js';
import { fitRun, type FitRun } from './runs/fit-run.js';
import { jointRun, type JointRun } from './runs/joint-run.js';
import { hiddenBy } from './runs/proof.js';
import { patternRuns, type PatternRun } from './runs/pattern-run.js';
import { settingRun, sinceBuild, type Bearings, type SettingRun } from './runs/setting-run.js';
import { conflictsOf, countedOnce, reconcileCounts, twiceWords, type Conflict, type ReconcileLine } from './strip/counts.js';
import { movedOf, openEnds, upsetOf, type Moved, type OpenEnd, type Upsetting } from './strip/open-ends.js';
import { type Decision, type RenewRule, decide } from './decisions.js';
import type { StepContext, StepState } from './steps/define-step.js';
import { jobVariant, misfitsOf, shaped, type JobVariant } from './shape.js';
import { stepState } from './steps/registry.js';
import { isPutOff } from './put-off.js';
import { type Mark, marksOf } from './strip/marks.js';

/** A wait that nobody has called over yet; by then it may have run out. */
export interface Clock {
  readonly entryId: string;
  readonly what: string;
  readonly step: string | null;
  /** ISO time at which it rings. */
  readonly until: string;
  /** Hot so long: not to be touched. */
  readonly hot?: true;
}

export interface JobState {
  /** The sheet as this job goes by it: of its variant, with the ways that were chosen and the figures that were found. */
  readonly sheet: SheetFile;
  /** None where the sheet knows but one. */
  readonly variant: JobVariant | undefined;
  /** What was kept and has no place any more on the sheet as it is now. */
  readonly misfits: readonly AnyKeptEntry[];
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
  /** What is to be read again because something was out of the way. */
  readonly upset: readonly Upsetting[];
  readonly conflicts: readonly Conflict[];
  /** Parts that are to be kept or may be spoilt in coming off, where somebody said so. */
  readonly intents: ReadonlyMap<string, 'keep' | 'sacrifice'>;
  readonly oldParts: readonly KeptEntry<'old-part'>[];
  readonly marks: readonly Mark[];
  /** What goes in again, in the order of the build. */
  readonly build: readonly BuildLine[];
  readonly clocks: readonly Clock[];
  /** What must be ready when a later step begins. */
  readonly leads: readonly LeadState[];
  /** What will not come, and how far up its ladder somebody is. */
  readonly ladders: readonly Ladder[];
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
  const job = new Reckoned(given, entries, rules);
  const { sheet, live, reconcile, decisions, intents, marks, conflicts, fits, joints, settings, patterns, cautionsRead } = job;
  const ledger = job.of('came-off');
  const steps = sheet.steps.map((step) => job.step(step));
  const settled = new Set(job.of('owed-settled').map(({ payload }) => payload.owed));
  return {
    sheet,
    variant: jobVariant(given, live),
    misfits: misfitsOf(given, sheet, live),
    stage: job.of('stage').at(-1)?.payload.stage ?? 'book-in',
    live,
    struck: new Map(entries.flatMap((entry) => (entry.strikes === null ? [] : [[entry.strikes, entry] as const]))),
    steps,
    ledger,
    reconcile,
    decisions,
    dues: duesOf(sheet, live),
    openEnds: openEnds(sheet, steps, job.of('open-end'), job.of('open-end-closed')),
    moved: movedOf(job.of('moved'), job.of('put-back')),
    upset: upsetOf(job.of('moved'), job.of('put-back'), job.of('set-again')),
    conflicts,
    intents,
    oldParts: latest(job.of('old-part'), ({ payload }) => payload.part ?? payload.name),
    marks,
    build: buildList(sheet, steps, ledger, decisions, marks, live),
    clocks: clocksOf(live),
    leads: leadsOf(steps, live),
    ladders: laddersOpen(sheet, live),
    joints,
    settings,
    fits,
    patterns,
    cautionsRead,
    owed: job.of('owed').filter(({ id }) => !settled.has(id)),
    signed: job.of('sign').at(-1),
    handedOver: job.of('handed-over').at(-1),
  };
}

/** What the entries of a job come to, each part of it worked out when it is first asked for. */
export class Reckoned implements StepContext {
  /** The sheet as the job goes by it. */
  readonly sheet: SheetFile;
  readonly live: readonly AnyKeptEntry[];
  readonly #rules: readonly RenewRule[];
  readonly #worked = new Map<string, unknown>();

  constructor(given: SheetFile, entries: readonly AnyKeptEntry[], rules: readonly RenewRule[] = []) {
    this.#rules = rules;
    this.live = liveOf(entries);
    this.sheet = shaped(given, this.live);
  }

  of<K extends EntryKind>(kind: K): readonly KeptEntry<K>[] {
    return this.#once(`kind ${kind}`, () => this.live.filter(isKind(kind)) as unknown as readonly KeptEntry<K>[]);
  }

  get cautionsRead(): JobState['cautionsRead'] {
    return this.of('caution-read');
  }

  get fits(): JobState['fits'] {
    return this.#once('fits', () => (this.sheet.fits ?? []).map((fit) => fitRun(fit, this.live)));
  }

  get joints(): JobState['joints'] {
    return this.#once('joints', () => this.sheet.joints.map((joint) => jointRun(joint, this.live, this.sheet.settings)));
  }

  get decisions(): JobState['decisions'] {
    return this.#once('decisions', () => decide(this.sheet, this.live, this.#rules));
  }

  get intents(): JobState['intents'] {
    return this.#once('intents', () => new Map(this.of('intent').map(({ payload }) => [payload.part, payload.intent])));
  }

  get settings(): JobState['settings'] {
    return this.#once('settings', () => {
      const builtOn = sinceBuild(this.sheet, this.live);
      return this.sheet.settings.map((setting) => settingRun(setting, builtOn, bearingsOf(setting, this.decisions)));
    });
  }

  get patterns(): JobState['patterns'] {
    return this.#once('patterns', () => patternRuns(this.sheet, this.live, this));
  }

  get marks(): JobState['marks'] {
    return this.#once('marks', () => marksOf(this.live));
  }

  get conflicts(): JobState['conflicts'] {
    return this.#once('conflicts', () => conflictsOf(this.of('came-off'), this.of('counted')));
  }

  /** What came off, each thing once however many counted it. */
  get ledger(): JobState['ledger'] {
    return this.#once('ledger', () => countedOnce(this.of('came-off'), this.conflicts));
  }

  get reconcile(): JobState['reconcile'] {
    return this.#once('reconcile', () => reconcileCounts(this.sheet, this.ledger, this.of('counted')));
  }

  /** Whether a step is done, and how far. */
  step(step: Step): StepState {
    return stepState(step, this);
  }

  #once<T>(name: string, work: () => T): T {
    if (!this.#worked.has(name)) this.#worked.set(name, work());
    return this.#worked.get(name) as T;
  }
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
    .map(({ id, payload: { what, seconds, hot }, step, takenAt }) => ({
      ...(hot ? { hot } : {}),
      entryId: id,
      what,
      step,
      until: new Date(Date.parse(takenAt) + seconds * 1000).toISOString(),
    }));
}

/** A setting that a step hides, and that was not read as it stays. */
export function unreadUnder({ sheet, settings }: Pick<JobState, 'sheet' | 'settings'>, step: Step): Setting | undefined {
  return hiddenBy(sheet, step).find(({ ref }) => settings.find(({ setting }) => setting.ref === ref)?.phase !== 'set');
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
    ...notTriedAgain(state.live).map(({ payload: { what, how } }) => `Not tried again: ${what}, ${how}`),
    ...state.marks.filter(({ met }) => !met).map(({ what, mark }) => `Mark not met: ${what}, ${mark}`),
    ...state.conflicts.map(twiceWords),
    ...newPartsMissing(state.sheet, state.live).map((part) => `New, and not said to be here: ${newPartWords(state.sheet, part)}`),
    ...notIn(state.build).map(({ name, count, inNow }) => `Not in yet: ${count - inNow} × ${name}`),
    ...state.moved.map(({ what }) => `Not back where it was: ${what}`),
    ...state.upset.map(({ moved, makes }) => `Not right again after ${moved} was out of the way: ${makes.what}`),
    ...state.steps
      .filter(({ step: { ref } }) => isPutOff(state.live, ref) && !state.live.some(({ kind, step }) => kind === 'owed' && step === ref))
      .map(({ step }) => `Put off, and not kept as owed: ${step.title}`),
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
