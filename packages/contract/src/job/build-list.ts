import { isKind, type AnyKeptEntry, type KeptEntry } from '../entry/kept.js';
import type { Decision, Mark } from './state.js';

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
  /** Pieces that are in. */
  readonly inNow: number;
  /** A new one takes its place, and why. */
  readonly renewed?: string;
  /** What must line up before it is home. */
  readonly mark?: Mark;
  /** The assembly that it is put into first. */
  readonly into?: string;
}

/**
 * The ledger the other way round: last off, first in; what came out of an assembly goes into it
 * before the assembly goes in. Renewed parts are named as new, marks stand where they fall due.
 */
export function buildList(
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
    const { name, part, size, place, direction, tray, count, inside } = payload;
    const decision = decisions.find((one) => one.part.ref === part);
    const isNew = (decision?.entry?.payload.fate ?? decision?.proposed) === 'renew';
    const mark = marks.find(({ entryId }) => entryId === id);
    const into = inside === undefined ? undefined : known.get(inside)?.payload.name;
    return {
      entryId: id,
      name,
      count,
      inNow: wentIn.filter((entry) => entry.payload.line === id).reduce((sum, entry) => sum + entry.payload.count, 0),
      ...Object.fromEntries(Object.entries({ part, size, place, direction, tray, into }).filter(([, held]) => held !== undefined)),
      ...(isNew && decision ? { renewed: decision.entry?.payload.reason ?? decision.because } : {}),
      ...(mark ? { mark } : {}),
    };
  };
  return lines(undefined);
}

/** What is not in although the list is in use; nothing while nobody ticks it, for counts before the build say it as well. */
export function notIn(list: readonly BuildLine[]): readonly BuildLine[] {
  return list.some(({ inNow }) => inNow > 0) ? list.filter(({ count, inNow }) => inNow < count) : [];
}
