import type { Feature, SheetFile, Variant } from './file.js';
import { baseOf } from './resolve.js';
import type { Candidate, Tells } from '@jubb/core';

/** A variant of a sheet, or a sheet that has but one, as something that a unit may be. */
export interface UnitCandidate {
  readonly candidate: Candidate;
  readonly name: string;
  readonly sheetKey: string;
  readonly variant: Variant | undefined;
}

type Identified = Pick<SheetFile, 'title' | 'features' | 'variants'>;

/** Everything that a unit may be, over the sheets of a family. */
export function candidatesOf(sheets: readonly { readonly key: string; readonly file: Identified }[]): readonly UnitCandidate[] {
  return sheets.flatMap(({ key, file }): UnitCandidate[] => {
    const { variants = [], features = [], title } = file;
    if (variants.length === 0) return [{ candidate: { id: key, tells: new Map() }, name: title, sheetKey: key, variant: undefined }];
    return variants.map((variant) => ({
      candidate: { id: `${key}/${variant.ref}`, tells: tellsOf(variant, features) },
      name: variants.length === 1 ? title : `${title}, ${variant.name}`,
      sheetKey: key,
      variant,
    }));
  });
}

function tellsOf(variant: Variant, features: readonly Feature[]): ReadonlyMap<string, Tells> {
  return new Map(
    variant.tells.map((tell): [string, Tells] => {
      const quantity = features.find(({ ref }) => ref === tell.feature)?.quantity;
      if (quantity === undefined) return [tell.feature, { word: tell.is }];
      return [tell.feature, { figure: baseOf(tell.is, quantity), within: tell.within === undefined ? 0 : baseOf(tell.within, quantity) }];
    }),
  );
}

/** Standard uncertainty to expect when a feature is measured at the counter, in its base unit; common practice. */
const COUNTER_U: Readonly<Record<NonNullable<Feature['quantity']>, number>> = {
  length: 0.5,
  mass: 0.1,
  count: 0,
  angle: 1,
  resistance: 0.1,
};

export function readingU(features: readonly Feature[], ref: string): number {
  const quantity = features.find((feature) => feature.ref === ref)?.quantity;
  return quantity === undefined ? 0 : COUNTER_U[quantity];
}

/** The features of all sheets, each once: sheets of a family share their refs. */
export function featuresOf(sheets: readonly { readonly file: Pick<SheetFile, 'features'> }[]): readonly Feature[] {
  const byRef = new Map<string, Feature>();
  for (const { file } of sheets) for (const feature of file.features ?? []) if (!byRef.has(feature.ref)) byRef.set(feature.ref, feature);
  return [...byRef.values()];
}

/** Words that can be picked for a feature: what the candidates say of it. */
export function picksOf(candidates: readonly UnitCandidate[], feature: string): readonly string[] {
  const words = candidates.flatMap(({ candidate }) => {
    const tells = candidate.tells.get(feature);
    return tells && 'word' in tells ? [tells.word] : [];
  });
  return [...new Set(words)].toSorted((a, b) => a.localeCompare(b));
}
