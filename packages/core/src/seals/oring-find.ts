import { mm, percent } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { grooveOf, seatedWords, type GrooveGiven } from './groove-fields.js';
import { FORMULA_MOST, faultsOf, seated, thinned } from './ring.js';
import { RING_SIZES, insideTolerance, sectionTolerance, type RingSize } from './ring-sizes.js';
import { FITS, SHELF_FIELD, ringsOn, triedIn } from './tried-in.js';

const SHOWN = 8;
const ROUND_TO = 0.02;
/** A ring that is larger than its groove by more does not lie in it. */
const LOOSE_MOST = 0.15;

/** By how much an old ring's volume may have changed, as it is said to be: common practice. */
const GROWN = {
  sound: { from: -0.02, to: 0.03 },
  flat: { from: -0.02, to: 0.05 },
  swollen: { from: 0.02, to: 0.4 },
  shrunk: { from: -0.2, to: 0.02 },
} as const;
type State = keyof typeof GROWN;

/** What a ring that sat stretched or pushed together keeps of it once it is out: common practice. */
const KEPT = { from: -0.02, to: 0.04 } as const;

const STATE_WORDS: Readonly<Record<State, string>> = {
  sound: 'like new',
  flat: 'pressed flat, hard',
  swollen: 'soft and swollen',
  shrunk: 'hard and shrunk',
};

interface OldRing {
  readonly inside: number;
  /** Volume of its section as if it were round: a flattened one keeps its area, mm. */
  readonly section: number;
  readonly state: State;
}

/**
 * Which ring was it?
 *
 * From an old one: pressed flat its section keeps its area, √(thick · wide); soaked it grows alike in every direction, by the cube root of
 * its volume; stretched for years it keeps some of that. Every standard size that it can have been is told with what must
 * have become of it. From one that was tried: what it measures over as it lies in the groove tells the bottom that no gauge
 * reaches, and every size is put into that groove as `oring.check` does.
 *
 * Example: an old one 20.9 inside, 2.3 thick and 3.2 wide, flat and hard: it was 20 × 2.65, stretched.
 */
export const oringFind = defineWorking({
  id: 'oring.find',
  title: 'Which ring was it?',
  area: 'seals',
  inputs: [
    {
      kind: 'choice',
      name: 'from',
      label: 'There is',
      default: 'old',
      choices: [
        { id: 'old', label: 'the old ring' },
        { id: 'tried', label: 'one that was tried in the groove' },
      ],
      help: 'With the groove itself: “Which O-ring goes into this groove?”.',
    },
    {
      kind: 'number',
      name: 'inside',
      label: 'Its inside',
      symbol: 'd₁',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'As it lies on the bench; of one that was tried, as printed on its bag.',
    },
    {
      kind: 'number',
      name: 'thick',
      label: 'Its section, the thin way',
      symbol: 'd₂',
      quantity: 'length',
      above: 0,
      max: 20,
      help: 'At three places; a calliper that does not press.',
    },
    {
      kind: 'number',
      name: 'wide',
      label: 'and the wide way',
      quantity: 'length',
      above: 0,
      max: 30,
      optional: true,
      help: 'Of a flattened one; where nothing is said it is round.',
    },
    {
      kind: 'choice',
      name: 'state',
      label: 'It is',
      default: 'sound',
      choices: (Object.keys(GROWN) as State[]).map((id) => ({ id, label: STATE_WORDS[id] })),
      onlyFor: { field: 'from', choices: ['old'] },
      help: 'Swollen: the wrong rubber for its fluid; look that up before the same is ordered again.',
    },
    {
      kind: 'choice',
      name: 'gland',
      label: 'It lies',
      default: 'piston',
      choices: [
        { id: 'piston', label: 'round a piston or spigot' },
        { id: 'rod', label: 'in a bore, round a rod' },
      ],
      onlyFor: { field: 'from', choices: ['tried'] },
      help: 'Where its groove is cut.',
    },
    {
      kind: 'number',
      name: 'over',
      label: 'Over it, as it lies',
      quantity: 'length',
      above: 0,
      max: 1000,
      onlyFor: { field: 'from', choices: ['tried'] },
      help: 'Across the ring in its groove, not pressed: outside on a piston, inside round a rod.',
    },
    {
      kind: 'number',
      name: 'mate',
      label: 'What it seals against',
      quantity: 'length',
      above: 0,
      max: 1000,
      onlyFor: { field: 'from', choices: ['tried'] },
      help: 'The bore round the piston, or the rod.',
    },
    {
      kind: 'number',
      name: 'width',
      label: 'Width of the groove',
      symbol: 'b',
      quantity: 'length',
      above: 0,
      max: 60,
      onlyFor: { field: 'from', choices: ['tried'] },
      help: 'Along the axis.',
    },
    {
      kind: 'choice',
      name: 'motion',
      label: 'There',
      default: 'static',
      choices: [
        { id: 'static', label: 'nothing moves' },
        { id: 'moving', label: 'it slides to and fro' },
        { id: 'turning', label: 'a shaft turns in it' },
      ],
      onlyFor: { field: 'from', choices: ['tried'] },
      help: 'What slides is squeezed less.',
    },
    SHELF_FIELD,
  ],
  outputs: [
    { kind: 'text', name: 'which', label: 'Likeliest', longest: 200, help: 'The size that explains it best.' },
    { kind: 'number', name: 'inside', label: 'Inside', quantity: 'length', help: 'Of that one, new.' },
    { kind: 'number', name: 'section', label: 'Section', quantity: 'length', help: 'Of that one, new.' },
    {
      kind: 'number',
      name: 'bottom',
      label: 'Bottom of the groove',
      quantity: 'length',
      optional: true,
      help: 'As the tried one tells it.',
    },
    { kind: 'text', name: 'tried', label: 'What is at hand', longest: 400, help: 'What is wrong with it.' },
    {
      kind: 'table',
      name: 'each',
      label: 'It can be',
      columns: [
        { name: 'name', label: 'ring', quantity: 'text' },
        { name: 'inside', label: 'inside', quantity: 'length' },
        { name: 'section', label: 'section', quantity: 'length' },
        { name: 'why', label: 'because', quantity: 'text' },
      ],
      help: 'The likeliest first.',
    },
  ],
  sources: [
    {
      kind: 'derivation',
      document: 'rubber keeps its volume when it is pressed flat, and grows alike in every direction when it swells',
      for: 'what the old one was',
    },
    { kind: 'handbook', document: 'O-ring handbook, reduction of section by stretch', for: 'the bottom of the groove', fromMemory: true },
    { kind: 'standard', document: 'SAE AS568, ISO 3601-1', for: 'sizes and tolerances', fromMemory: true },
    { kind: 'common practice', document: 'how far rings swell, shrink and stay stretched', for: 'what is likely' },
  ],
  cautions: [
    'What came out need not be what belongs there: measure the groove too, where it can be reached.',
    'The right size in the wrong rubber leaks within weeks: look at the medium too.',
  ],
  serves: [{ at: 'seal', kinds: ['o-ring', 'piston-seal'], rank: 3, preset: { shelf: 'seal.shelf' } }],
  example: { from: 'old', inside: 20.5, thick: 2.3, wide: 3.1, state: 'flat' },
  compute(input) {
    const lying = ringsOn(input.shelf);
    if (!lying.ok) return lying;
    const sizes = [...lying.value.map((size) => ({ ...size, onShelf: true as const })), ...RING_SIZES];
    return input.from === 'old' ? fromOld(input, sizes) : fromTried(input, sizes);
  },
  explain: (input, output) =>
    input.from === 'old'
      ? [
          {
            say: 'Its section as if it were round again.',
            formula: '√(thick · wide)',
            numbers: mm(Math.sqrt(input.thick * (input.wide ?? input.thick))),
          },
          {
            say: 'Every size that it can have been: grown by its section, and what its inside keeps beside that.',
            formula: '1 + q = (d₂ old/d₂ new)³',
          },
          { say: output.which, numbers: String(output.each[0]?.['why'] ?? '') },
        ]
      : [
          {
            say: 'The bottom that the tried one lies on: it is thinner by its stretch.',
            formula: input.gland === 'piston' ? 'd = over − 2·d₂·(1 − R)' : 'D = over + 2·d₂·(1 − R)',
            numbers: mm(output.bottom ?? 0),
          },
          { say: `The tried one: ${output.tried}.` },
          { say: output.which, numbers: String(output.each[0]?.['why'] ?? '') },
        ],
});

interface Answer {
  readonly which: string;
  readonly inside: number;
  readonly section: number;
  readonly bottom: number | undefined;
  readonly tried: string;
  readonly each: readonly { readonly name: string; readonly inside: number; readonly section: number; readonly why: string }[];
}

type Sizes = readonly (RingSize & { readonly onShelf?: true })[];

interface Ranked {
  readonly size: Sizes[number];
  readonly badness: number;
  readonly why: string;
}

function answered(ranked: readonly Ranked[], more: Pick<Answer, 'tried' | 'bottom'>): Answer {
  const [best] = ranked;
  const { name, inside, section } = best!.size;
  return {
    which: name,
    inside,
    section,
    ...more,
    each: ranked.slice(0, SHOWN).map(({ size, why }) => ({ name: size.name, inside: size.inside, section: size.section, why })),
  };
}

function fromOld(
  { inside, thick, wide = thick, state }: { inside: number; thick: number; wide?: number | undefined; state: State },
  sizes: Sizes,
): Result<Answer> {
  if (wide < thick) return refuse({ code: 'too-small', field: 'wide', received: mm(wide), bound: `as much as the thin way, ${mm(thick)}` });
  if (wide > 2.5 * thick)
    return refuse({
      code: 'too-large',
      field: 'wide',
      received: mm(wide),
      bound: `${mm(2.5 * thick)}: flatter than that it was no round ring`,
    });
  const old: OldRing = { inside, section: Math.sqrt(thick * wide), state };
  const ranked = sizes.flatMap((size) => was(old, size) ?? []).toSorted((one, other) => one.badness - other.badness);
  if (ranked.length > 0)
    return ok(answered(ranked, { bottom: undefined, tried: `${STATE_WORDS[state]}, section ${mm(old.section)} if it were round` }));
  const nearest = sizes.toSorted(
    (one, other) =>
      Math.hypot(one.inside - inside, 8 * (one.section - old.section)) -
      Math.hypot(other.inside - inside, 8 * (other.section - old.section)),
  )[0]!;
  return refuse({
    code: 'none-will-do',
    field: 'inside',
    received: 'the sizes there are',
    bound: `the nearest is ${nearest.name}; measure it again, or say what it is like: ${Object.values(STATE_WORDS).join(', ')}`,
  });
}

/** Whether the old one can have been of a size, and what must have become of it. */
function was(old: OldRing, size: Sizes[number]): Ranked | undefined {
  // Either may be off by what a new one may be, and by what the calliper presses.
  const bySection = (sectionTolerance(size.section) + ROUND_TO) / size.section;
  const grown = (old.section / size.section) ** 3 - 1;
  const { from, to } = GROWN[old.state];
  if (grown < from - 3 * bySection || grown > to + 3 * bySection) return undefined;
  const within = Math.max(from, Math.min(to, grown));
  const kept = old.inside / (size.inside * (1 + within) ** (1 / 3)) - 1;
  const byInside = insideTolerance(size.inside) / size.inside;
  if (kept < KEPT.from - byInside || kept > KEPT.to + byInside) return undefined;
  const off = (figure: number, least: number, most: number, room: number): number =>
    Math.max(0, least - figure, figure - most) / room + Math.abs(figure - (least + most) / 2) / (most - least);
  const badness = off(grown, from, to, 3 * bySection) + off(kept, KEPT.from, KEPT.to, byInside) + (size.onShelf ? 0 : 0.5);
  const why = [
    ...(size.onShelf ? ['on the shelf'] : []),
    Math.abs(grown) < 3 * bySection ? 'section as new' : grown > 0 ? `grown by ${percent(grown)}` : `shrunk by ${percent(-grown)}`,
    Math.abs(kept) < byInside
      ? 'inside as new'
      : kept > 0
        ? `stayed stretched by ${percent(kept)}`
        : `stayed pushed together by ${percent(-kept)}`,
  ].join(', ');
  return { size, badness, why };
}

interface Tried {
  readonly inside: number;
  readonly thick: number;
  readonly gland: 'piston' | 'rod';
  readonly over?: number | undefined;
  readonly mate?: number | undefined;
  readonly width?: number | undefined;
  readonly motion: GrooveGiven['motion'];
}

function fromTried({ inside, thick, gland, over: across, mate: against, width, motion }: Tried, sizes: Sizes): Result<Answer> {
  const [over, mate] = [across!, against!];
  const bottom = bottomUnder({ inside, section: thick }, gland, over);
  if (bottom === undefined)
    return refuse({
      code: 'cannot-be',
      field: 'over',
      received: mm(over),
      bound: `a ring of ${mm(inside)} × ${mm(thick)} would be stretched by more than ${percent(FORMULA_MOST)}, or not lie there at all`,
    });
  const [inner, outer] = gland === 'piston' ? [bottom, mate] : [mate, bottom];
  if (outer <= inner)
    return refuse({
      code: 'cannot-be',
      field: 'mate',
      received: mm(mate),
      bound: `the bottom of the groove is at ${mm(bottom)}: ${gland === 'piston' ? 'a bore is larger' : 'a rod is smaller'}`,
    });
  const made = grooveOf({ gland, motion, inner, outer, width, loose: 0, warmer: 0, swell: 0 });
  if (!made.ok) return made;
  const groove = made.value;
  const own = faultsOf(groove, seated(groove, { inside, section: thick }));
  const ranked = sizes
    .flatMap((size): readonly Ranked[] => {
      const one = triedIn(groove, size, size.onShelf ?? false);
      if (!one || one.badness >= FITS) return [];
      return [{ size, badness: one.badness, why: [...(size.onShelf ? ['on the shelf'] : []), seatedWords(one.at)].join(', ') }];
    })
    .toSorted((one, other) => one.badness - other.badness);
  const tried = own.length === 0 ? 'it fits' : own.map(({ words }) => words).join('; ');
  if (ranked.length === 0)
    return refuse({
      code: 'none-will-do',
      field: 'width',
      received: 'the sizes there are',
      bound: `the groove is ${mm(groove.height)} deep from ${mm(bottom)}; the tried one: ${tried}`,
    });
  return ok(answered(ranked, { tried, bottom }));
}

/** Diameter of the bottom of a groove, mm, from what a ring of known size measures over as it lies in it. */
function bottomUnder(
  { inside, section }: { readonly inside: number; readonly section: number },
  gland: 'piston' | 'rod',
  over: number,
): number | undefined {
  if (gland === 'rod') {
    // In a bore it lies against the outside, hardly changed in section.
    const bottom = over + 2 * section;
    return bottom > inside * (1 - LOOSE_MOST) ? bottom : undefined;
  }
  // Thinner by its stretch, which hangs on the bottom: halved until both agree.
  const overAt = (bottom: number): number => bottom + 2 * section * (1 - thinned((bottom - inside) / inside));
  let [low, high] = [inside * (1 - LOOSE_MOST), inside * (1 + FORMULA_MOST)];
  if (over < overAt(low) || over > overAt(high)) return undefined;
  for (let half = 0; half < 60; half += 1) {
    const middle = (low + high) / 2;
    if (overAt(middle) < over) low = middle;
    else high = middle;
  }
  return low;
}
