import type { SheetFile, Step, Stage } from '@jubb/sheet';
import { isKind, type AnyKeptEntry, type KeptEntry } from './entries/kept.js';
import { partsPutIn } from './parts/new-parts.js';
import type { Decision } from './decisions.js';
import { isActed, type StepState } from './steps/define-step.js';
import type { Mark } from './strip/marks.js';

/** Something that has to go in again, from the line of the ledger that says how it came off. */
export interface BuildLine {
  /** The line of the ledger. */
  readonly entryId: string;
  readonly name: string;
  readonly part?: string;
  readonly size?: string;
  readonly place?: string;
  readonly direction?: string;
  readonly tray?: string;
  readonly count: number;
  /** Pieces that are in: ticked, or all of them once the step is done that puts them in. */
  readonly inNow: number;
  /** Pieces that somebody ticked on the list. */
  readonly ticked: number;
  /** A new one takes its place, and why. */
  readonly renewed?: string;
  /** What must line up before it is home. */
  readonly mark?: Mark;
  /** The assembly that it is put into first. */
  readonly into?: string;
  /** Fasteners of a joint: which. */
  readonly joint?: string;
}

/**
 * The ledger the other way round: last off, first in; what came out of an assembly goes into it
 * before the assembly goes in. Renewed parts are named as new, marks stand where they fall due.
 */
export function buildList(
  sheet: SheetFile,
  steps: readonly StepState[],
  ledger: readonly KeptEntry<'came-off'>[],
  decisions: readonly Decision[],
  marks: readonly Mark[],
  live: readonly AnyKeptEntry[],
): readonly BuildLine[] {
  const known = new Map(ledger.map((line) => [line.id, line]));
  const wentIn = live.filter(isKind('went-in'));
  const lines = (inside: string | undefined): readonly BuildLine[] =>
    ledger
      .filter(({ payload }) => (payload.inside !== undefined && known.has(payload.inside) ? payload.inside : undefined) === inside)
      .toReversed()
      .flatMap((line) => [...lines(line.id), lineOf(line)]);
  const lineOf = ({ id, payload }: KeptEntry<'came-off'>): BuildLine => {
    const { name, part, size, place, direction, tray, count, inside, joint } = payload;
    const decision = decisions.find((one) => one.part.ref === part);
    const isNew = (decision?.entry?.payload.fate ?? decision?.proposed) === 'renew';
    const mark = marks.find(({ entryId }) => entryId === id);
    const into = inside === undefined ? undefined : known.get(inside)?.payload.name;
    const ticked = wentIn.filter((entry) => entry.payload.line === id).reduce((sum, entry) => sum + entry.payload.count, 0);
    const isIn = steps.some(
      (state) => isActed(state) && PUTS_TOGETHER.has(state.step.stage) && takesIn(sheet, state.step, { joint, part }),
    );
    return {
      entryId: id,
      name,
      count,
      inNow: isIn ? count : ticked,
      ticked,
      ...Object.fromEntries(Object.entries({ part, size, place, direction, tray, into, joint }).filter(([, held]) => held !== undefined)),
      ...(isNew && decision ? { renewed: decision.entry?.payload.reason ?? decision.because } : {}),
      ...(mark ? { mark } : {}),
    };
  };
  return lines(undefined);
}

/** Pieces that go in, and how many of them are in. */
export function buildCount(list: readonly BuildLine[]): { readonly pieces: number; readonly inNow: number } {
  return {
    pieces: list.reduce((sum, { count }) => sum + count, 0),
    inNow: list.reduce((sum, { inNow }) => sum + inNow, 0),
  };
}

/** What is not in although the list is in use; nothing while nobody ticks it, for counts before the build say it as well. */
export function notIn(list: readonly BuildLine[]): readonly BuildLine[] {
  return list.some(({ ticked }) => ticked > 0) ? list.filter(({ count, inNow }) => inNow < count) : [];
}

/** A step of the build with the lines that go in by it; at last what no step names. */
export interface BuildStep {
  readonly state?: StepState;
  readonly lines: readonly BuildLine[];
}

/**
 * The steps of the build and the lines of the ledger as one list. A line stands at the step that
 * puts its part in; one that no step names goes in before the next one that is named, last off
 * first in.
 */
export function buildSteps(sheet: SheetFile, steps: readonly StepState[], build: readonly BuildLine[]): readonly BuildStep[] {
  // What is put on when it is proved, on the machine, is in the list too.
  const isOwn = ({ step }: StepState): boolean =>
    step.stage === 'build' || (step.stage === 'prove' && build.some(({ part }) => putsIn(sheet, step, part)));
  const own = steps.filter(isOwn);
  const lines = new Map<StepState | undefined, BuildLine[]>();
  const put = (at: StepState | undefined, more: readonly BuildLine[]): void => void lines.set(at, [...(lines.get(at) ?? []), ...more]);
  let waiting: BuildLine[] = [];
  for (const line of build) {
    const at =
      own.find(({ step }) => step.record.joint !== undefined && step.record.joint === line.joint) ??
      own.find(({ step }) => line.part !== undefined && step.putsIn?.includes(line.part)) ??
      own.find(({ step }) => putsIn(sheet, step, line.part));
    if (!at) {
      waiting.push(line);
      continue;
    }
    put(at, [...waiting, line]);
    waiting = [];
  }
  put(undefined, waiting);
  const rest = lines.get(undefined) ?? [];
  return [...own.map((state) => ({ state, lines: lines.get(state) ?? [] })), ...(rest.length > 0 ? [{ lines: rest }] : [])];
}

const PUTS_TOGETHER: ReadonlySet<Stage> = new Set(['build', 'prove']);

/** Whether a line goes in by a step: a fastener of its joint, or a part that it puts in. */
function takesIn(
  sheet: SheetFile,
  step: Step,
  { joint, part }: { readonly joint: string | undefined; readonly part: string | undefined },
): boolean {
  return (joint !== undefined && step.record.joint === joint) || putsIn(sheet, step, part);
}

function putsIn(sheet: SheetFile, step: Step, part: string | undefined): boolean {
  return part !== undefined && partsPutIn(sheet, step).includes(part);
}

/** What must be done early, for it cannot be done later: not done yet, with what makes it too late. */
export function earlySteps(steps: readonly StepState[]): readonly { readonly step: Step; readonly before: Step }[] {
  const open = new Map(steps.filter((state) => !isActed(state)).map(({ step }) => [step.ref, step]));
  return [...open.values()].flatMap((step) => {
    const before = step.tooLateAfter === undefined ? undefined : open.get(step.tooLateAfter);
    return before ? [{ step, before }] : [];
  });
}
