import { find, reshaped, variantOf, type SheetFile, type Variant } from '@jubb/sheet';
import type { AnyKeptEntry, EntryKind, KeptEntry } from './entries/kept.js';
import { withOneFound } from './found.js';

/** Kinds of entries that make the sheet another one for their job. */
export const SHAPING: readonly EntryKind[] = ['variant', 'way', 'value-found'];

/** What of an entry the sheet is shaped by. */
export type ShapingEntry = { [K in EntryKind]: Pick<KeptEntry<K>, 'kind' | 'payload' | 'step'> }[EntryKind];

/** Which variant a job goes by, and how that is known: found on it, told when it was booked in, or nobody knows yet. */
export interface JobVariant {
  readonly variant: Variant;
  readonly by: 'found' | 'booked' | 'nobody';
}

/** The variant of a job, where its sheet has several. */
export function jobVariant(given: SheetFile, live: readonly ShapingEntry[]): JobVariant | undefined {
  const { variants = [], build } = given;
  const found = foundVariant(live);
  const variant = variantOf(given, found ?? build);
  if (!variant || variants.length < 2) return undefined;
  const by = find(variants, found) ? 'found' : find(variants, build) ? 'booked' : 'nobody';
  return { variant, by };
}

/** Entries that stand and that the sheet, as it is now, has no place for: of a step, a line or a screw that this unit does not have. */
export function misfitsOf(given: SheetFile, sheet: SheetFile, live: readonly AnyKeptEntry[]): readonly AnyKeptEntry[] {
  const here = new Set(sheet.steps.map(({ ref }) => ref));
  const gone = new Set(given.steps.flatMap(({ ref }) => (here.has(ref) ? [] : [ref])));
  const counts = new Map(given.joints.map(({ ref }) => [ref, find(sheet.joints, ref)?.count ?? 0]));
  return live.filter((entry) => {
    if (entry.kind === 'variant' || entry.kind === 'way') return false;
    if (entry.step !== null && gone.has(entry.step)) return true;
    return entry.kind === 'pull' && entry.payload.place >= (counts.get(entry.payload.joint) ?? Number.POSITIVE_INFINITY);
  });
}

const known = new WeakMap<SheetFile, Map<string, SheetFile>>();
const MOST_KNOWN = 50;

/**
 * The sheet as a job goes by it: of the variant that was found, or that it was booked in as; with the ways that were chosen, and
 * the figures that were found. Of entries that stand.
 */
export function shaped(given: SheetFile, live: readonly ShapingEntry[]): SheetFile {
  const variant = foundVariant(live) ?? given.build;
  const ways = new Map(live.flatMap(({ kind, step, payload }) => (kind === 'way' && step !== null ? [[step, payload.way] as const] : [])));
  return live.reduce((at, { kind, payload }) => (kind === 'value-found' ? withOneFound(at, payload) : at), chosenOf(given, variant, ways));
}

function foundVariant(live: readonly ShapingEntry[]): string | undefined {
  return live.reduce<string | undefined>((at, { kind, payload }) => (kind === 'variant' ? payload.variant : at), undefined);
}

/** The same sheet for the same choices: what is worked out of it is looked up by it. */
function chosenOf(given: SheetFile, variant: string | undefined, ways: ReadonlyMap<string, string>): SheetFile {
  const ofSheet = known.get(given) ?? new Map<string, SheetFile>();
  known.set(given, ofSheet);
  const key = JSON.stringify([variant, ...ways]);
  const made = ofSheet.get(key) ?? reshaped(given, { variant, ways });
  if (ofSheet.size < MOST_KNOWN) ofSheet.set(key, made);
  return made;
}
