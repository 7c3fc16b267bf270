import { type Part, type SheetFile, type Step, find, partName } from '@jubb/sheet';
import { isKind, type AnyKeptEntry } from '../entries/kept.js';
import { putAside } from '../runs/seal-run.js';

/** A part that a new one takes the place of, and how many of the new ones are said to be in hand. */
export interface NewPart {
  readonly part: Part;
  readonly pieces: number;
  readonly here: number;
}

/** Refs of what a step puts in: what it names, and the part of its joint, seal or fit. */
export function partsPutIn(sheet: SheetFile, { putsIn = [], record }: Step): readonly string[] {
  const byRecord = [find(sheet.joints, record.joint), find(sheet.seals, record.seal), find(sheet.fits ?? [], record.fit)];
  return [...new Set([...putsIn, ...byRecord.flatMap((line) => line?.part ?? [])])];
}

/** Pieces of a part that were said to be in hand on this job, out of stores or from elsewhere. */
export function piecesHere(sheet: SheetFile, part: string, live: readonly AnyKeptEntry[]): number {
  const came = live.filter(isKind('replacement-here')).reduce((sum, { payload, step }) => {
    if (payload.part !== undefined) return payload.part === part ? sum + (payload.count ?? 1) : sum;
    // Said of a step as a whole: the new fasteners of its joint.
    const at = find(sheet.steps, step ?? undefined);
    const joint = find(sheet.joints, at?.record.joint);
    const seated = (at?.seats ?? []).flatMap((ref) => find(sheet.fastenings ?? [], ref) ?? []);
    const fresh = [...(joint ? [joint] : []), ...seated].find((one) => one.renewEachTime && one.part === part);
    return fresh ? sum + fresh.count : sum;
  }, 0);
  return Math.max(0, came - putAside(sheet, part, live));
}

/** The part where a new one takes its place, by what was decided, or by the sheet before anything is; nothing where it goes back. */
export function newPart(sheet: SheetFile, ref: string, live: readonly AnyKeptEntry[]): NewPart | undefined {
  const part = find(sheet.parts, ref);
  if (!part) return undefined;
  const decided = live.filter(isKind('decision')).findLast(({ payload }) => payload.part === ref)?.payload;
  const isNew = decided ? decided.fate === 'renew' : part.policy === 'renew';
  return isNew ? { part, pieces: decided?.quantity ?? part.quantity, here: piecesHere(sheet, ref, live) } : undefined;
}

/** So many pieces of one number, shared among the parts of that number that are not in hand yet. */
export function sharedInHand(
  sheet: SheetFile,
  live: readonly AnyKeptEntry[],
  parts: readonly string[],
  pieces: number,
): readonly { readonly part: string; readonly count: number }[] {
  let left = pieces;
  return parts.flatMap((ref) => {
    const part = newPart(sheet, ref, live);
    const count = Math.max(0, Math.min(left, part ? part.pieces - part.here : 0));
    left -= count;
    return count > 0 ? [{ part: ref, count }] : [];
  });
}

/** New parts of a job that nobody said are in hand yet. */
export function newPartsMissing(
  sheet: SheetFile,
  live: readonly AnyKeptEntry[],
  refs = sheet.parts.map(({ ref }) => ref),
): readonly NewPart[] {
  return refs.flatMap((ref) => newPart(sheet, ref, live) ?? []).filter(({ here, pieces }) => here < pieces);
}

/** The new part of a line of the ledger, where fewer are in hand than would be in with so many more. */
export function newPartShort(sheet: SheetFile, ref: string | undefined, more: number, live: readonly AnyKeptEntry[]): NewPart | undefined {
  const part = ref === undefined ? undefined : newPart(sheet, ref, live);
  if (!part) return undefined;
  const lines = new Set(live.filter(isKind('came-off')).flatMap(({ id, payload }) => (payload.part === ref ? id : [])));
  const inNow = live.filter(isKind('went-in')).reduce((sum, { payload }) => sum + (lines.has(payload.line) ? payload.count : 0), 0);
  return part.here < Math.min(part.pieces, inNow + more) ? part : undefined;
}

/** "2 × Inner bearing". */
export function newPartWords(sheet: SheetFile, { part, pieces, here }: NewPart): string {
  return `${pieces - here} × ${partName(sheet, part.ref)}`;
}
