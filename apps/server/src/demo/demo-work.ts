import { Reckoned, mayMake, shaped, workingFor, type AnyKeptEntry, type EntryKind, type ShapingEntry, type UsedWorking } from '@jubb/book';
import { normal, seeded } from '@jubb/core';
import { STAGES, dayIn, type Role, type SheetFile, type Stage, type Step, type Tool } from '@jubb/sheet';
import { v7 as uuid } from 'uuid';
import { actsAt, type DemoEntry, type DemoUnit } from '@jubb/play';

/** Somebody of the demo who works at a job. */
export interface Worker {
  readonly id: string;
  readonly role: Role;
}

export interface Crew {
  readonly hand: Worker;
  /** Decides and goes on where the hand may not, and signs. */
  readonly foreman: Worker;
  readonly counter: Worker;
}

/**
 * An entry that is made by plan; before it so many minutes are waited: for a van, a customer, a cure. What it puts off is due
 * in so many days.
 */
export type LaterEntry = DemoEntry & { readonly waits?: number; readonly dueIn?: number };

/** An act that shapes the sheet of its job. */
export type ShapingAct = LaterEntry & ShapingEntry;

/** Where the work stops: before a step, in the middle of a run, or with the stage. */
export interface Stop {
  readonly stage: Stage;
  /** How much of the steps of that stage is done, 0 to 1. */
  readonly share?: number;
  /** In the middle of the first run of that kind; before the signature. */
  readonly within?: 'torque' | 'setting' | 'pattern' | 'sign';
  /** Said once the work has stopped. */
  readonly then?: readonly LaterEntry[];
}

/** All that makes a job of the demo what it becomes, but for the hour. */
export interface JobPlan {
  readonly seed: number;
  readonly unit: DemoUnit;
  readonly crew: Crew;
  /** Nothing where it is worked to the hand-over. */
  readonly stop?: Stop;
  /** Something is counted wrong at first, and struck. */
  readonly slips?: boolean;
  /** Kept at the end of a stage, after everything of it. */
  readonly after?: Partial<Record<Stage, readonly LaterEntry[]>>;
  /** Kept before anything else: ways that are chosen beforehand, and what the unit was found to be. */
  readonly begins?: readonly ShapingAct[];
  /** How fast they are: 1 as the sheet says. */
  readonly pace: number;
}

/** An entry with who makes it, and how long after the one before, min of work or of waiting. */
export interface TimedEntry extends Omit<LaterEntry, 'waits'> {
  readonly id: string;
  readonly person: Worker;
  readonly working: UsedWorking | null;
  readonly strikes: string | null;
  readonly minutes: number;
  readonly waits: number;
  /** Something was made ready for it that holds for some hours only: no night comes in between. */
  readonly isReady: boolean;
}

/** Minutes that an entry takes, about. Common practice, and no more than that. */
const MINUTES: Partial<Record<EntryKind, number>> = {
  pull: 0.4,
  tick: 5,
  reading: 3,
  look: 2,
  'came-off': 1.6,
  'caution-read': 0.3,
  decision: 0.7,
  counted: 0.5,
  fluid: 6,
  'seal-fitted': 7,
  'end-play': 4,
  nut: 3,
  pattern: 9,
  fitted: 10,
  worked: 2,
  sign: 4,
  'handed-over': 8,
};
const OTHER_MINUTES = 1;
/** A step that does not end is a fault of the sheet or of the mechanic. */
const MOST_ROUNDS = 40;
const MOST_OF_WORKINGS = 4000;

/** What the foreman puts a name to. */
const SIGNED: ReadonlySet<EntryKind> = new Set<EntryKind>(['sign', 'accepted', 'hold-met']);

/** The hour comes later, with the days of the job. */
const AT = '2026-01-01T00:00:00.000Z';

const SLIP = 'One was still in the wheel brace';

/** Workings by what goes in: many pulls are alike. */
const known = new WeakMap<SheetFile, Map<string, UsedWorking | null>>();

/** Works at a job by its sheet from its first step, and gives what is kept of it, in order. */
export function workAt(given: SheetFile, plan: JobPlan, tools: readonly Tool[]): readonly TimedEntry[] {
  const sheet = shaped(given, plan.begins ?? []);
  const random = seeded(plan.seed);
  // Which tools are past their check.
  const today = dayIn('UTC', Date.now());
  const byId = new Map(tools.map((tool) => [tool.id, tool]));
  const made: TimedEntry[] = [];
  const kept: AnyKeptEntry[] = [];
  const keep = (draft: Omit<LaterEntry, 'waits'> & { strikes?: string }, waits = 0, isReady = false): string => {
    const id = uuid({ random: bytes(random), msecs: 0 });
    const { hand, foreman, counter } = plan.crew;
    const takes = draft.kind === 'handed-over' ? counter : SIGNED.has(draft.kind) ? foreman : hand;
    const person = may(draft, takes) ? takes : foreman;
    const usual = MINUTES[draft.kind] ?? OTHER_MINUTES;
    const minutes = Math.max(0.1, usual * plan.pace * Math.exp(normal(random, 0, 0.35)));
    const entry = {
      ...draft,
      id,
      person,
      strikes: draft.strikes ?? null,
      working: workingOf(draft, sheet, byId.get(draft.toolId ?? '')),
      minutes,
      waits,
      isReady,
    };
    made.push(entry);
    // As the book would have it, but for who and when: neither changes what follows from it.
    kept.push({ step: null, toolId: null, personId: person.id, takenAt: AT, seq: made.length, ...entry } as unknown as AnyKeptEntry);
    return id;
  };
  const keepLater = ({ waits, ...act }: LaterEntry): string => keep(act, waits);
  let slips = plan.slips ?? false;
  plan.begins?.forEach((act) => keep(act));
  for (const stage of STAGES) {
    if (stage !== 'book-in') keep({ kind: 'stage', payload: { stage } });
    const steps = sheet.steps.filter((step) => step.stage === stage);
    const stop = plan.stop?.stage === stage ? plan.stop : undefined;
    const upTo = stop?.share === undefined ? steps.length : Math.floor(steps.length * stop.share);
    for (const [at, step] of steps.entries()) {
      if (at >= upTo && !stop?.within) break;
      for (let round = 0; ; round += 1) {
        const state = new Reckoned(given, kept);
        const stands = state.step(step);
        if (stands.done) break;
        if (round > MOST_ROUNDS) throw new Error(`${sheet.key}: ${step.ref} does not end`);
        const { acts, again } = actsAt(state, stands, { unit: plan.unit, tools, random, at: AT, today });
        if (!again && stop?.within && isRun(step, stop.within, acts)) {
          midway(acts, stop.within).forEach((act) => keep(act));
          stop.then?.forEach(keepLater);
          return made;
        }
        const counted = slips ? acts.find(({ kind }) => kind === 'came-off') : undefined;
        if (counted) {
          slips = false;
          const { count } = counted.payload as { count: number };
          const strikes = keep({ ...counted, payload: { ...counted.payload, count: Math.max(1, count - 1) } });
          keep({ kind: 'strike', payload: { reason: SLIP }, strikes });
        }
        // What must be ready takes its time before the step.
        const isReady = step.lead?.most !== undefined;
        acts.forEach((act) => keep(act, act.kind === 'wait-over' && step.lead ? minutesOf(step.lead.time) : 0, isReady));
      }
      waitAfter(step, keep);
    }
    plan.after?.[stage]?.forEach(keepLater);
    if (!stop) continue;
    stop.then?.forEach(keepLater);
    return made;
  }
  return made;
}

function waitAfter({ ref, wait }: Step, keep: (draft: DemoEntry, waits?: number) => string): void {
  if (!wait) return;
  const minutes = minutesOf(wait.time);
  const clock = keep({ kind: 'wait', payload: { what: wait.what, seconds: minutes * 60, ...(wait.hot ? { hot: true } : {}) }, step: ref });
  keep({ kind: 'wait-over', payload: { wait: clock }, step: ref }, minutes);
}

/** "20 min", "2 h". */
function minutesOf(time: string): number {
  const [amount = 0, unit] = time.split(' ');
  return Number(amount) * (unit === 'h' ? 60 : 1);
}

function may({ kind, payload }: DemoEntry, { role }: Worker): boolean {
  const isOn = kind === 'stage' && (payload as { stage: Stage }).stage === 'build';
  return mayMake(kind, role) && !(isOn && role === 'apprentice');
}

/** A run that is long enough to be in the middle of. */
function isRun({ record }: Step, within: NonNullable<Stop['within']>, acts: readonly DemoEntry[]): boolean {
  return record.kind === within && (within !== 'torque' || acts.filter(({ kind }) => kind === 'pull').length >= 6);
}

/** The first part of a run: some of the pulls, the first try of a setting, a pattern that is off; all but the signature. */
function midway(acts: readonly DemoEntry[], within: NonNullable<Stop['within']>): readonly DemoEntry[] {
  if (within === 'torque') return acts.slice(0, Math.ceil(acts.length * 0.6));
  if (within === 'sign') return acts.filter(({ kind }) => kind !== 'sign');
  if (within === 'setting') return acts;
  return acts.map((act) =>
    act.kind === 'pattern' ? { ...act, payload: { ...act.payload, driveUp: 'root', coastUp: 'root', driveAlong: 'toe' } } : act,
  );
}

function workingOf({ kind, payload, toolId }: DemoEntry, sheet: SheetFile, tool: Tool | undefined): UsedWorking | null {
  const ofSheet = known.get(sheet) ?? new Map<string, UsedWorking | null>();
  known.set(sheet, ofSheet);
  const key = JSON.stringify([kind, payload, toolId]);
  const before = ofSheet.get(key);
  if (before !== undefined) return before;
  const working = workingFor(kind, payload, sheet, tool);
  if (ofSheet.size < MOST_OF_WORKINGS) ofSheet.set(key, working);
  return working;
}

function bytes(random: () => number): Uint8Array {
  return Uint8Array.from({ length: 16 }, () => Math.floor(random() * 256));
}
