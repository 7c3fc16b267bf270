import {
  Reckoned,
  checkEntry,
  checkOnJob,
  mayMake,
  verdictOf,
  workingFor,
  type AnyKeptEntry,
  type CribTool,
  type EntryKind,
  type NewEntry,
} from '@jubb/book';
import { seeded } from '@jubb/core';
import { STAGES, type Role, type SheetFile, type Step, type Tool } from '@jubb/sheet';
import { v7 as uuid } from 'uuid';
import { actsAt, dueBefore, type DemoEntry, type DemoUnit } from '@jubb/play';
import type { Moment, Slip, Slipped } from './slip.js';

/** By what a mistake is seen. */
export type Seen = 'refused' | 'asked again' | 'verdict' | 'count' | 'look' | 'obligation' | 'signature';

export interface Caught {
  readonly by: Seen;
  /** Acts between the mistake and its being seen. */
  readonly later: number;
  readonly words: string;
}

/** What became of a mistake on a sheet; not possible where nothing on it can be done so. */
export type Outcome = Caught | 'passed' | 'not possible';

/** More than a job has entries: no two places of two plays draw the same. */
const SEED_STEP = 10_000;

const TODAY = '2026-01-01';
const AT = `${TODAY}T08:00:00.000Z`;
/** A step that does not end is a fault of the sheet or of the mechanic. */
const MOST_ROUNDS = 40;
const ROLES = { hand: 'mechanic', foreman: 'foreman', counter: 'counter' } as const satisfies Readonly<Record<string, Role>>;
type Who = keyof typeof ROLES;
const SIGNED: ReadonlySet<EntryKind> = new Set<EntryKind>(['sign', 'accepted', 'hold-met']);

/** One act of a clean play, with what the job held before it. */
interface Round {
  readonly step: Step;
  readonly acts: readonly DemoEntry[];
  readonly before: number;
}

/** A job on a sheet, worked by the demo mechanic from book-in to hand-over. */
export class SlipPlay {
  readonly #given: SheetFile;
  readonly #unit: DemoUnit;
  readonly #tools: readonly Tool[];
  readonly #clean: readonly AnyKeptEntry[];
  readonly #rounds: readonly Round[];
  readonly #moments: readonly Moment[];
  readonly #seed: number;

  constructor(given: SheetFile, unit: DemoUnit, tools: readonly Tool[], seed = 7) {
    this.#seed = seed;
    this.#given = given;
    this.#unit = unit;
    this.#tools = tools;
    const kept: AnyKeptEntry[] = [];
    const rounds: Round[] = [];
    for (const step of this.#steps(kept))
      for (let round = 0; ; round += 1) {
        const acts = this.#next(step, kept);
        if (!acts) break;
        if (round > MOST_ROUNDS) throw new Error(`${given.key}: ${step.ref} does not end`);
        rounds.push({ step, acts, before: kept.length });
        for (const act of acts) kept.push(this.#kept(act, kept, whoMakes(act)));
      }
    this.#clean = kept;
    this.#rounds = rounds;
    this.#moments = rounds.map(({ step, acts, before }) => {
      const state = new Reckoned(given, kept.slice(0, before));
      return { sheet: state.sheet, step, acts, state, tools };
    });
  }

  /** What becomes of a mistake, the first time that it can be made. */
  outcome(slip: Slip): Outcome {
    for (const [at, moment] of this.#moments.entries()) {
      const slipped = slip.make(moment);
      if (slipped) return this.#follow(at, slipped);
    }
    return 'not possible';
  }

  /** What the server says to a job where nothing goes wrong: it must say nothing. */
  alarm(): Outcome {
    return this.#follow(0, { acts: this.#rounds[0]!.acts });
  }

  /** Goes on after a mistake as if nothing were wrong, until the job asks for something else than it would have. */
  #follow(at: number, { acts, by, goesOn }: Slipped): Outcome {
    const { step, before } = this.#rounds[at]!;
    const kept = this.#clean.slice(0, before);
    const caught = (seen: Seen, words: string): Caught => ({ by: seen, later: Math.max(0, kept.length - before - acts.length), words });
    for (const act of acts) {
      const refusal = this.#refusal(act, kept, by ?? whoMakes(act));
      if (refusal !== undefined) return { by: 'refused', later: 0, words: refusal };
      kept.push(this.#kept(act, kept, by ?? whoMakes(act)));
      const judged = verdictOf(kept.at(-1)!);
      if ((judged === 'out' || judged === 'unsure') && judged !== verdictOf(this.#clean[kept.length - 1]!))
        return caught('verdict', judged);
    }
    let next = goesOn ? this.#rounds.findIndex((round, index) => index > at && round.step.ref !== step.ref) : at + 1;
    let isPast = false;
    for (const due of this.#steps(kept)) {
      isPast ||= due.ref === step.ref;
      if (!isPast || (goesOn && due.ref === step.ref)) continue;
      for (let more = this.#next(due, kept); more; more = this.#next(due, kept)) {
        const isAtEnd = due.record.kind === 'sign' || due.record.kind === 'hand-over';
        const wanted = this.#rounds[next];
        if (!wanted || keyOf(due, more) !== keyOf(wanted.step, wanted.acts)) return this.#asked(due, kept, caught);
        // What lies there for the build is what there is, whatever was said to have come off.
        for (const act of due.record.kind === 'reconcile' ? wanted.acts : more) {
          const refusal = this.#refusal(act, kept, whoMakes(act));
          if (refusal !== undefined) return caught(isAtEnd ? 'signature' : 'refused', refusal);
          kept.push(this.#kept(act, kept, whoMakes(act)));
        }
        next += 1;
      }
      // What was passed over is what a page says is next, as soon as another step is done.
      if (goesOn && kept.length > before && due.stage === step.stage) return caught('asked again', step.title);
    }
    return 'passed';
  }

  /** By what a step asks for something else than it would have. */
  #asked(step: Step, kept: readonly AnyKeptEntry[], caught: (seen: Seen, words: string) => Caught): Caught {
    const state = new Reckoned(this.#given, kept);
    const { looks, problem = step.title } = state.step(step);
    const due = dueBefore(state, step);
    if (due) return caught('obligation', due.obligation.name);
    if (step.record.kind === 'sign') return caught('signature', problem);
    if (looks) return caught('look', problem);
    return caught(step.record.kind === 'count' || step.record.kind === 'reconcile' ? 'count' : 'asked again', problem);
  }

  *#steps(kept: AnyKeptEntry[]): Iterable<Step> {
    for (const stage of STAGES) {
      const at = kept.findLast(({ kind }) => kind === 'stage') as { readonly payload: { readonly stage: string } } | undefined;
      const isThere = at !== undefined && STAGES.indexOf(at.payload.stage as never) >= STAGES.indexOf(stage);
      const stageAct: DemoEntry = { kind: 'stage', payload: { stage } };
      if (stage !== 'book-in' && !isThere) kept.push(this.#kept(stageAct, kept, 'foreman'));
      yield* new Reckoned(this.#given, kept).sheet.steps.filter((step) => step.stage === stage);
    }
  }

  /** What the mechanic does next at a step; nothing where it is done. */
  #next(step: Step, kept: readonly AnyKeptEntry[]): readonly DemoEntry[] | undefined {
    const state = new Reckoned(this.#given, kept);
    const stands = state.step(step);
    if (stands.done) return undefined;
    // Every play draws the same figures at the same place.
    const random = seeded(this.#seed * SEED_STEP + kept.length);
    return actsAt(state, stands, { unit: this.#unit, tools: this.#tools, random, at: AT, today: TODAY }).acts;
  }

  #refusal(act: DemoEntry, kept: readonly AnyKeptEntry[], who: Who): string | undefined {
    const state = new Reckoned(this.#given, kept);
    const given: NewEntry = { id: uuid(), takenAt: AT, ...act } as NewEntry;
    const crib = new Map(this.#tools.map((tool): [string, CribTool] => [tool.id, { ...tool, zone: 'UTC', foundOutAt: undefined }]));
    const tool = this.#tools.find(({ id }) => given.toolId === `overdue ${id}`);
    if (tool) crib.set(`overdue ${tool.id}`, { ...tool, zone: 'UTC', foundOutAt: undefined, calibrationDue: '2025-12-01' });
    const refusal =
      checkEntry(given, { sheet: state.sheet, tools: crib, role: ROLES[who], now: Date.parse(AT) }) ??
      checkOnJob([{ ...given, step: given.step ?? null, strikes: null } as never], kept, state.sheet, { role: ROLES[who], personId: who });
    return refusal && (refusal.detail ?? refusal.errors.map(({ field, allowed }) => `${field} ${allowed}`).join('; '));
  }

  #kept(act: DemoEntry, kept: readonly AnyKeptEntry[], who: Who): AnyKeptEntry {
    const sheet = new Reckoned(this.#given, kept).sheet;
    const tool = this.#tools.find(({ id }) => id === act.toolId);
    return {
      step: null,
      toolId: null,
      strikes: null,
      ...act,
      id: uuid(),
      seq: kept.length + 1,
      personId: who,
      takenAt: AT,
      working: workingFor(act.kind, act.payload, sheet, tool),
    } as unknown as AnyKeptEntry;
  }
}

/** What a round of acts is, whatever its figures: at which step, and of which kinds. */
function keyOf({ ref }: Step, acts: readonly DemoEntry[]): string {
  return `${ref}: ${[...new Set(acts.map(({ kind }) => kind))].join(' ')}`;
}

function whoMakes({ kind, payload }: DemoEntry): Who {
  if (kind === 'handed-over') return 'counter';
  if (SIGNED.has(kind)) return 'foreman';
  const isBuild = kind === 'stage' && (payload as { stage: string }).stage === 'build';
  return mayMake(kind, 'mechanic') && !isBuild ? 'hand' : 'foreman';
}
