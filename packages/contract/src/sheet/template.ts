import { SHEET_FORMAT, type SheetFile } from './file.js';

interface NewModel {
  readonly key: string;
  readonly make: string;
  readonly model: string;
  readonly machine: string;
}

/**
 * A first draft for a model that nobody wrote a sheet of: the work of its family's sheet, with every
 * figure only somebody's word until it is found, worked out or stood for. Part numbers are left out:
 * they belong to the other model.
 */
export function fromTemplate(family: SheetFile, { key, make, model, machine }: NewModel): SheetFile {
  const { notes: _, variants: __, features: ___, serialPlace: ____, mass: _____, ...rest } = family;
  const source = `taken over from ${family.title}`;
  const draft = distrusted(rest, source) as SheetFile;
  return {
    ...draft,
    format: SHEET_FORMAT,
    key,
    title: `${make} ${model}`,
    make,
    model,
    machine,
    notes: `Begun from ${family.title}. Every figure is to be found for this model.`,
    documents: [],
    parts: draft.parts.map(({ number: _number, superseded: _superseded, ...part }) => part),
    ...(draft.kits ? { kits: draft.kits.map(({ number: _number, ...kit }) => kit) } : {}),
    steps: draft.steps.map(({ pinned: _pinned, ...step }) => step),
  };
}

/** Whatever says where it comes from now says that it is taken over. */
function distrusted(held: unknown, source: string): unknown {
  if (Array.isArray(held)) return held.map((item: unknown) => distrusted(item, source));
  if (typeof held !== 'object' || held === null) return held;
  const copy = Object.fromEntries(Object.entries(held).map(([name, inner]: [string, unknown]) => [name, distrusted(inner, source)]));
  if (!('trust' in copy)) return copy;
  const { page: _page, ...value } = copy as { page?: unknown };
  return { ...value, trust: 'unverified', source };
}
