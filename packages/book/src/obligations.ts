import { type Obligation, type SheetFile, find } from '@jubb/sheet';
import { isKind, type AnyKeptEntry } from './entries/kept.js';

/** Something that was made necessary on this job, and whether it is met. */
export interface Due {
  readonly obligation: Obligation;
  /** What made it: a step that was done, a part that was renewed or came off. */
  readonly by: string;
  readonly closed: boolean;
}

/**
 * This makes that necessary: an act or a renewed part opens an obligation, what is recorded at its
 * closing step afterwards closes it. A part that is renewed after that opens it again.
 */
export function duesOf(sheet: SheetFile, live: readonly AnyKeptEntry[]): readonly Due[] {
  return (sheet.obligations ?? []).flatMap((obligation) => {
    const opening = live.findLast((entry) => opens(obligation, entry));
    if (!opening) return [];
    const closing = live.findLast((entry) => entry.step === obligation.closedBy && closes(entry));
    return [{ obligation, by: nameOf(sheet, obligation, opening), closed: closing !== undefined && closing.seq > opening.seq }];
  });
}

/** Kinds of entry by which a step is done. A caution read or a note closes nothing. */
const CLOSES = new Set<AnyKeptEntry['kind']>([
  'reading',
  'end-play',
  'pattern',
  'pull',
  'fitted',
  'seal-fitted',
  'fluid',
  'tick',
  'look',
  'counted',
  'nut',
  'finding',
]);
/** A reading before the lock is on the way, not there. */
function closes(entry: AnyKeptEntry): boolean {
  return CLOSES.has(entry.kind) && !(entry.kind === 'end-play' && entry.payload.moment === 'now') && !isTrial(entry);
}

/** Kinds by which an act on a step is done; the reading of a step that sets something opens nothing. */
const ACTS = new Set<AnyKeptEntry['kind']>(['tick', 'came-off', 'came-out', 'seal-fitted', 'fitted', 'pull', 'nut']);

function opens({ madeBy, closedBy }: Obligation, entry: AnyKeptEntry): boolean {
  if (entry.step === closedBy) return false;
  if (entry.kind === 'decision') return madeBy.includes(entry.payload.part) && entry.payload.fate === 'renew';
  return entry.step !== null && madeBy.includes(entry.step) && ACTS.has(entry.kind) && !isTrial(entry);
}

function isTrial(entry: AnyKeptEntry): boolean {
  return entry.kind === 'pull' && entry.payload.trial === true;
}

function nameOf(sheet: SheetFile, { madeBy }: Obligation, entry: AnyKeptEntry): string {
  if (isKind('decision')(entry)) return `${find(sheet.parts, entry.payload.part)?.name ?? entry.payload.part} renewed`;
  return (
    find(
      sheet.steps,
      madeBy.find((ref) => ref === entry.step),
    )?.title ?? 'done'
  );
}
