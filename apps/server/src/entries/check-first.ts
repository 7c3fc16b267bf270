import {
  find,
  fitRun,
  isKind,
  newFirst,
  newMissing,
  type AnyKeptEntry,
  type FittedPayload,
  type NewFirst,
  type SealFittedPayload,
  type SheetFile,
  type WentInPayload,
} from '@jubb/contract';
import { badInput } from '../common/problem.js';
import type { EntryContent } from './entry-hash.js';

/** Kinds in which a step is done to the unit. */
const ACTS = new Set<string>(['tick', 'came-off', 'pull', 'fitted', 'nut']);

/** Why what it does must not be done before the new part is seen here. */
export function needsNew({ kind, step }: { readonly kind: string; readonly step?: string | null }, sheet: SheetFile): NewFirst | undefined {
  return ACTS.has(kind) ? newFirst(sheet, find(sheet.steps, step ?? undefined)) : undefined;
}

/** No more goes in than came off, also when two put it in at once. */
function checkWentIn({ line, count }: WentInPayload, live: readonly AnyKeptEntry[]): void {
  const off = live.filter(isKind('came-off')).find(({ id }) => id === line)?.payload.count ?? 0;
  const inNow = live.filter(isKind('went-in')).reduce((sum, { payload }) => (payload.line === line ? sum + payload.count : sum), 0);
  if (inNow + count > off)
    throw badInput([
      { field: 'payload.count', given: String(count), allowed: `must be at most ${off - inNow}: ${off} came off, ${inNow} are in again` },
    ]);
}

/** What must be recorded before some acts: the old seal out before the new one, the replacement before no way back. */
export function checkFirst(content: EntryContent, held: readonly AnyKeptEntry[], sheet: SheetFile): void {
  const struck = new Set(held.map(({ strikes }) => strikes));
  const live = held.filter(({ id }) => !struck.has(id));
  const needs = needsNew(content, sheet) && newMissing(sheet, find(sheet.steps, content.step ?? undefined), live);
  if (needs) {
    const allowed =
      needs.why === 'no way back'
        ? 'has no way back: what takes its place must be seen here first'
        : `pulls ${needs.joint.name}, new each time: say first that the new ones are here`;
    throw badInput([{ field: 'step', given: content.step ?? '', allowed }]);
  }
  if (content.kind === 'went-in') checkWentIn(content.payload as WentInPayload, live);
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
