import type { RecordKind } from '../model/choices.js';
import { SHEET_FORMAT, type SheetFile } from '../model/file.js';
import type { Stage } from '../words.js';

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
    steps: draft.steps.map(({ pinned: _pinned, shows: _shows, ...step }) => step),
  };
}

/**
 * A first draft of a kind of unit that no sheet is here of: what any rebuild has, to be filled. What
 * belongs to the unit itself, its parts and figures first, is for its author to write.
 */
export function emptySheet({ key, make, model, machine }: NewModel, family: string): SheetFile {
  return {
    format: SHEET_FORMAT,
    key,
    title: `${make} ${model}`,
    family,
    make,
    model,
    machine,
    documents: [],
    // A job goes by it before anybody knows its parts: it is about the unit then.
    parts: [{ ref: 'unit', name: `${make} ${model}`, quantity: 1, policy: 'inspect' }],
    joints: [],
    settings: [],
    seals: [],
    limits: [],
    fluids: [],
    cautions: [],
    steps: ANY_REBUILD.map(([ref, stage, title, act, kind]) => ({ ref, stage, title, act, record: { kind } })),
    customerNotes: [],
  };
}

const ANY_REBUILD: readonly (readonly [ref: string, stage: Stage, title: string, act: string, kind: RecordKind])[] = [
  [
    'arrival',
    'book-in',
    'Marks and damage on arrival',
    'Look it over before anything is cleaned: marks, damage, what is missing.',
    'arrival',
  ],
  ['strip', 'strip', 'Take it apart', 'Take it apart in order, and mark what must go back the same way.', 'tick'],
  ['wash-and-look', 'measure', 'Wash and look', 'Wash and dry all parts, and look at each.', 'tick'],
  ['fates', 'decide', 'What goes back', 'Decide part by part what goes back and what is renewed.', 'decide'],
  ['together', 'build', 'Put it together', 'Put it together in the order of the sheet.', 'tick'],
  ['all-accounted', 'prove', 'Count', 'Count what came off against what went back.', 'reconcile'],
  ['sign', 'prove', 'Foreman signs', 'The foreman looks through the job and signs.', 'sign'],
  ['out', 'hand-over', 'Hand over', 'Tell what was done and what to watch, and hand it over.', 'hand-over'],
];

/** Whatever says where it comes from now says that it is taken over. */
function distrusted(held: unknown, source: string): unknown {
  if (Array.isArray(held)) return held.map((item: unknown) => distrusted(item, source));
  if (typeof held !== 'object' || held === null) return held;
  const copy = Object.fromEntries(Object.entries(held).map(([name, inner]: [string, unknown]) => [name, distrusted(inner, source)]));
  if (!('trust' in copy)) return copy;
  const { page: _page, ...value } = copy as { page?: unknown };
  return { ...value, trust: 'unverified', source };
}
