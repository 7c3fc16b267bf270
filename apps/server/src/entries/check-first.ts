import {
  fitRun,
  isKind,
  liveOf,
  mayNeedNew,
  newMissing,
  newPartShort,
  newPartWords,
  type AnyKeptEntry,
  type EntryKind,
  type FittedPayload,
  type NewFirst,
  type SealFittedPayload,
  type WentInPayload,
} from '@jubb/book';
import { find, type SheetFile } from '@jubb/sheet';
import { badInput } from '../common/problem.js';
import type { EntryContent } from './entry-hash.js';

/** Kinds in which a step is done to the unit. */
const ACTS = new Set<string>(['tick', 'came-off', 'pull', 'fitted', 'nut', 'seal-fitted', 'end-play']);

/** All that tells which new parts a job wants and has. */
export const TELL_OF_NEW: readonly EntryKind[] = ['replacement-here', 'decision', 'gear-moved', 'strike'];

/** Whether what it does must not be done before something new is seen here. */
export function mayWantNew({ kind, step }: { readonly kind: string; readonly step?: string | null }, sheet: SheetFile): boolean {
  return ACTS.has(kind) && mayNeedNew(sheet, find(sheet.steps, step ?? undefined));
}

function newWords(needs: NewFirst, sheet: SheetFile): string {
  switch (needs.why) {
    case 'no way back':
      return 'has no way back: what takes its place must be seen here first';
    case 'new each time':
      return `pulls ${needs.joint.name}, new each time: say first that the new ones are here`;
    case 'renewed':
      return `puts in what is new, and was not said to be here: ${needs.parts.map((part) => newPartWords(sheet, part)).join(', ')}`;
  }
}

/** No more goes in than came off, also when two put it in at once; a new one not before it has come. */
function checkWentIn({ line, count }: WentInPayload, live: readonly AnyKeptEntry[], sheet: SheetFile): void {
  const cameOff = live.filter(isKind('came-off')).find(({ id }) => id === line)?.payload;
  const off = cameOff?.count ?? 0;
  const inNow = live.filter(isKind('went-in')).reduce((sum, { payload }) => (payload.line === line ? sum + payload.count : sum), 0);
  if (inNow + count > off)
    throw badInput([
      { field: 'payload.count', given: String(count), allowed: `must be at most ${off - inNow}: ${off} came off, ${inNow} are in again` },
    ]);
  const short = newPartShort(sheet, cameOff?.part, count, live);
  if (short)
    throw badInput([
      { field: 'payload.line', allowed: `is renewed, and the new one was not said to be here: ${newPartWords(sheet, short)}` },
    ]);
}

/** What must be recorded before some acts: the old seal out before the new one, the replacement before no way back. */
export function checkFirst(content: EntryContent, held: readonly AnyKeptEntry[], sheet: SheetFile): void {
  const live = liveOf(held);
  const needs = mayWantNew(content, sheet) ? newMissing(sheet, find(sheet.steps, content.step ?? undefined), live) : undefined;
  if (needs) throw badInput([{ field: 'step', given: content.step ?? '', allowed: newWords(needs, sheet) }]);
  if (content.kind === 'went-in') checkWentIn(content.payload as WentInPayload, live, sheet);
  if (content.kind === 'fitted') checkFitted(content.payload as FittedPayload, live, sheet);
  if (content.kind !== 'seal-fitted') return;
  const { seal } = content.payload as SealFittedPayload;
  const out = live.filter(isKind('old-seal-out')).findLast(({ payload }) => payload.seal === seal);
  if (!out?.payload.whole)
    throw badInput([{ field: 'payload.seal', given: seal, allowed: 'takes no new ring until the old one is ticked out whole' }]);
}

/** A fit goes home once it was measured, and one that is not what is wanted only with the reason. */
function checkFitted({ fit: ref, note }: FittedPayload, live: readonly AnyKeptEntry[], sheet: SheetFile): void {
  const fit = find(sheet.fits ?? [], ref);
  if (!fit) return;
  const { measured, verdict } = fitRun(fit, live);
  if (!measured) throw badInput([{ field: 'payload.fit', given: ref, allowed: 'is not measured yet: shaft and bore first' }]);
  if (verdict !== 'in' && note === undefined)
    throw badInput([
      { field: 'payload.note', allowed: `is missing: the fit is ${verdict ?? 'not judged'}; say why it goes in all the same` },
    ]);
}
