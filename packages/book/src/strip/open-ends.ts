import { type SheetFile, find, type OpenEndKind } from '@jubb/sheet';
import type { KeptEntry } from '../entries/kept.js';
import type { Consequence, InTheWay } from '../in-the-way.js';
import type { StepState } from '../steps/define-step.js';

/** What is not in its final state. */
export interface OpenEnd {
  readonly key: string;
  readonly what: string;
  readonly place: string;
  readonly closes: string;
  readonly kind?: OpenEndKind;
  /** Turns of an adjuster from its stop, as found. */
  readonly turns?: number;
  /** Entry to close by hand; one that a step closes, closes with it. */
  readonly entryId?: string;
}

/** Something that was moved to get at the unit, and is not back yet. */
export interface Moved extends Readonly<InTheWay> {
  readonly entryId: string;
}

/** What is to be read again because something was out of the way. */
export interface Upsetting {
  /** Entry of what was moved, and what it was. */
  readonly entryId: string;
  readonly moved: string;
  readonly makes: Readonly<Consequence>;
  readonly isBack: boolean;
  /** What was read since it is back, and is not right. */
  readonly found?: number;
}

export function openEnds(
  sheet: SheetFile,
  steps: readonly StepState[],
  opened: readonly KeptEntry<'open-end'>[],
  closed: readonly KeptEntry<'open-end-closed'>[],
): readonly OpenEnd[] {
  const done = new Set(steps.filter((state) => state.done).map((state) => state.step.ref));
  const closedIds = new Set(closed.map((entry) => entry.payload.opened));
  const ofSteps = steps.flatMap(({ step }): OpenEnd[] => {
    const { opens } = step;
    if (!opens || !done.has(step.ref) || done.has(opens.closedBy)) return [];
    return [{ key: step.ref, what: opens.what, place: opens.place, closes: find(sheet.steps, opens.closedBy)?.title ?? opens.closedBy }];
  });
  const byHand = opened
    .filter(({ id, payload }) => !closedIds.has(id) && !done.has(payload.closedBy ?? ''))
    .map(({ id, payload: { what, place = '', closes, kind, turns, closedBy } }): OpenEnd => ({
      key: id,
      what,
      place,
      closes,
      ...(kind === undefined ? {} : { kind }),
      ...(turns === undefined ? {} : { turns }),
      ...(closedBy === undefined ? { entryId: id } : {}),
    }));
  return [...ofSteps, ...byHand];
}

/** What stands out of the way, the last one moved first: it goes back in that order. */
export function movedOf(moved: readonly KeptEntry<'moved'>[], back: readonly KeptEntry<'put-back'>[]): readonly Moved[] {
  const isBack = new Set(back.map(({ payload }) => payload.moved));
  return moved
    .filter(({ id }) => !isBack.has(id))
    .map(({ id, payload }) => ({ entryId: id, ...payload }))
    .toReversed();
}

/** What was upset and is not right again: nothing was read since the thing is back, or what was read is out of its window. */
export function upsetOf(
  moved: readonly KeptEntry<'moved'>[],
  back: readonly KeptEntry<'put-back'>[],
  read: readonly KeptEntry<'set-again'>[],
): readonly Upsetting[] {
  return moved.flatMap(({ id, payload: { what, makes } }): Upsetting[] => {
    if (!makes) return [];
    const since = back.findLast(({ payload }) => payload.moved === id)?.seq;
    const found = read.findLast(({ seq, payload }) => payload.moved === id && since !== undefined && seq > since)?.payload.figure;
    if (found !== undefined && found >= (makes.from ?? -Infinity) && found <= (makes.to ?? Infinity)) return [];
    return [{ entryId: id, moved: what, makes, isBack: since !== undefined, ...(found === undefined ? {} : { found }) }];
  });
}
