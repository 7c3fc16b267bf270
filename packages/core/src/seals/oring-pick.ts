import { mm, newtons, percent } from '../quantity/write.js';
import type { Row } from '../working/describe.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { GROOVE_FIELDS, grooveOf, seatedWords, type GrooveGiven } from './groove-fields.js';
import { HARDEST, SOFTEST, firstPush } from './oring-drag.js';
import { FILL_MOST, FORMULA_MOST, faultsOf, isFace, seated, squeezeOf, thinned, type Groove } from './ring.js';
import { STATE_WORDS, become, bottomUnder, oldRing, type Become, type OldRing, type OldState } from './ring-in-hand.js';
import { AS568, AS568_BOSS, ISO_3601, RING_SIZES, WHOLE_MM, sectionTolerance, type RingSize } from './ring-sizes.js';
import { FITS, SHELF_FIELD, ringsOn, triedIn, type Candidate } from './tried-in.js';

const SHOWN = 12;
/** Of those that are too thin, and of those that are too thick. */
const NEAR_SHOWN = 3;
/** Of what the old one can have been and will not do. */
const OLD_SHOWN = 2;
const SERIES = { all: RING_SIZES, inch: [...AS568, ...AS568_BOSS], metric: [...ISO_3601, ...WHOLE_MM] } as const;
/** How much the old one speaks beside the groove: the groove decides, the old one may have been the wrong ring. */
const OLD_WEIGHS = 0.2;
const NOT_THE_OLD = 3;
/** Where nothing but the old one is known, the one on the shelf of two that explain it alike. */
const OLD_NOT_ON_SHELF = 0.5;

const [GLAND, MOTION, INNER, OUTER, DEPTH, WIDTH, ...PLAY] = GROOVE_FIELDS;
const WITH_GROOVE = ['groove', 'between', 'tried'] as const;

/**
 * Which O-ring goes here?
 *
 * By whatever is known, together: the groove as it measures; shaft and bore alone, then with the groove that each ring wants; a
 * ring that was tried, which tells the bottom that no gauge reaches; the old one, flattened (its section keeps its area,
 * √(thick · wide)), swollen or shrunk (alike in every direction, by the cube root of its volume), stretched for years. Every
 * standard size, and those of the shelf, are put into the groove as `oring.check` does: what is right first, what is on the
 * shelf before what is not, then what the old one can have been, then whatever is nearest to the middle of squeeze and
 * stretch. What is a little too thin or too thick is shown with why it will not do; what slides, with the hardest first push.
 *
 * Example: a groove of 20.8 in a bore of 25, 3.6 wide, a ring of 20 × 2.65 on the shelf: that one.
 */
export const oringPick = defineWorking({
  id: 'oring.pick',
  aliases: ['oring.find'],
  title: 'Which O-ring goes here?',
  area: 'seals',
  inputs: [
    {
      kind: 'choice',
      name: 'from',
      label: 'Known is',
      default: 'groove',
      choices: [
        { id: 'groove', label: 'the groove' },
        { id: 'between', label: 'shaft and bore only' },
        { id: 'tried', label: 'a ring that was tried in the groove' },
        { id: 'old', label: 'the old ring only' },
      ],
      help: 'The old ring is looked at beside the groove too: see below.',
    },
    { ...GLAND, onlyFor: { field: 'from', choices: WITH_GROOVE } },
    { ...MOTION, onlyFor: { field: 'from', choices: WITH_GROOVE } },
    { ...INNER, onlyFor: { field: 'from', choices: ['groove', 'between'] } },
    { ...OUTER, onlyFor: { field: 'from', choices: ['groove', 'between'] } },
    { ...DEPTH, optional: true },
    {
      ...WIDTH,
      optional: true,
      onlyFor: { field: 'from', choices: ['groove', 'tried'] },
      help: 'Along the axis; in a face it follows from its walls and stays empty.',
    },
    {
      kind: 'number',
      name: 'over',
      label: 'Over it, as it lies',
      quantity: 'length',
      above: 0,
      max: 1000,
      onlyFor: { field: 'from', choices: ['tried'] },
      help: 'Across the tried ring in its groove, not pressed: outside on a piston, inside round a rod.',
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
      name: 'inside',
      label: 'Ring in the hand, inside',
      symbol: 'd₁',
      quantity: 'length',
      above: 0,
      max: 1000,
      optional: true,
      help: 'The old one, as it lies on the bench; of one that was tried, as printed on its bag.',
    },
    {
      kind: 'number',
      name: 'thick',
      label: 'Its section, the thin way',
      symbol: 'd₂',
      quantity: 'length',
      above: 0,
      max: 20,
      optional: true,
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
      label: 'The old one is',
      default: 'sound',
      choices: (Object.keys(STATE_WORDS) as OldState[]).map((id) => ({ id, label: STATE_WORDS[id] })),
      onlyFor: { field: 'from', choices: ['groove', 'between', 'old'] },
      help: 'Swollen: the wrong rubber for its fluid; look that up before the same is ordered again.',
    },
    ...PLAY.map((field) => ({ ...field, onlyFor: { field: 'from', choices: WITH_GROOVE } })),
    {
      kind: 'number',
      name: 'shore',
      label: 'Hardness',
      quantity: 'count',
      min: SOFTEST,
      max: HARDEST,
      default: 70,
      onlyFor: { field: 'motion', choices: ['moving', 'turning'] },
      help: 'Shore A; what it drags with goes by it.',
    },
    {
      kind: 'number',
      name: 'pressure',
      label: 'Pressure on it',
      quantity: 'pressure',
      min: 0,
      max: 40,
      default: 0,
      onlyFor: { field: 'motion', choices: ['moving', 'turning'] },
      help: 'While it slides.',
    },
    {
      kind: 'choice',
      name: 'series',
      label: 'Look among',
      default: 'all',
      choices: [
        { id: 'all', label: 'all sizes' },
        { id: 'metric', label: 'metric ones' },
        { id: 'inch', label: 'inch ones (AS568)' },
      ],
      help: 'What the unit was made with.',
    },
    SHELF_FIELD,
  ],
  outputs: [
    { kind: 'text', name: 'which', label: 'Take', longest: 200, help: 'The best of those that fit, or explain the old one best.' },
    { kind: 'number', name: 'inside', label: 'Inside', quantity: 'length', help: 'Of that one, new.' },
    { kind: 'number', name: 'section', label: 'Section', quantity: 'length', help: 'Of that one, new.' },
    { kind: 'number', name: 'squeeze', label: 'Squeezed by', quantity: 'ratio', share: true, optional: true, help: 'Of that one.' },
    { kind: 'number', name: 'stretch', label: 'Stretched by', quantity: 'ratio', share: true, optional: true, help: 'Of that one.' },
    { kind: 'number', name: 'fill', label: 'Groove full to', quantity: 'ratio', share: true, optional: true, help: 'Of that one.' },
    {
      kind: 'number',
      name: 'drag',
      label: 'First push, at most',
      quantity: 'force',
      optional: true,
      help: 'Oiled, after it stood; what moves it must be more.',
    },
    {
      kind: 'number',
      name: 'wants',
      label: 'Groove, width at least',
      quantity: 'length',
      optional: true,
      help: 'That the one to take wants.',
    },
    {
      kind: 'number',
      name: 'bottom',
      label: 'Bottom of the groove',
      quantity: 'length',
      optional: true,
      help: 'As the tried one tells it.',
    },
    {
      kind: 'text',
      name: 'tried',
      label: 'The one in the hand',
      longest: 400,
      optional: true,
      help: 'What it was, or what is wrong with it.',
    },
    {
      kind: 'table',
      name: 'each',
      label: 'The nearest',
      columns: [
        { name: 'name', label: 'ring', quantity: 'text' },
        { name: 'so', label: 'so', quantity: 'text' },
        { name: 'shelf', label: 'on the shelf', quantity: 'yes-no' },
        { name: 'inside', label: 'inside', quantity: 'length' },
        { name: 'section', label: 'section', quantity: 'length' },
        { name: 'squeeze', label: 'squeezed', quantity: 'ratio', share: true },
        { name: 'stretch', label: 'stretched', quantity: 'ratio', share: true },
        { name: 'fill', label: 'full', quantity: 'ratio', share: true },
        { name: 'drag', label: 'first push', quantity: 'force' },
        { name: 'old', label: 'if it was the old one', quantity: 'text' },
        { name: 'why', label: 'because', quantity: 'text' },
      ],
      help: 'Those that fit, then those that nearly would, with what is wrong with them.',
    },
  ],
  sources: [
    { kind: 'standard', document: 'SAE AS568', for: 'inch sizes', fromMemory: true },
    { kind: 'standard', document: 'ISO 3601-1', for: 'metric sizes and tolerances', fromMemory: true },
    { kind: 'common practice', document: 'squeeze, stretch and fill as housings of ISO 3601-2 come out', for: 'what is right' },
    {
      kind: 'derivation',
      document: 'rubber keeps its volume when it is pressed flat, and grows alike in every direction when it swells',
      for: 'what the old one was',
    },
    { kind: 'common practice', document: 'how far rings swell, shrink and stay stretched', for: 'what the old one can have been' },
    { kind: 'handbook', document: 'Lindley and Gent, with friction of 0.6 after rest', for: 'the first push', fromMemory: true },
  ],
  cautions: [
    'A ring that seals where a cup or lip seal sealed is another seal: the pressure no longer helps it, and it drags. Customer and foreman agree first.',
    'What came out need not be what belongs there, and the right size in the wrong rubber leaks within weeks: measure the groove, look at the medium.',
  ],
  heavy: true,
  serves: [{ at: 'seal', kinds: ['o-ring', 'piston-seal'], rank: 2, preset: { shelf: 'seal.shelf' } }],
  example: {
    from: 'groove',
    gland: 'piston',
    inner: 20.8,
    outer: 25,
    width: 3.6,
    loose: 0.03,
    shelf: [{ name: 'box 4: 20 × 2.65', inside: 20, section: 2.65 }],
  },
  compute(input) {
    const lying = ringsOn(input.shelf);
    if (!lying.ok) return lying;
    const sizes: readonly Size[] = [...lying.value.map((size) => ({ ...size, onShelf: true })), ...SERIES[input.series]];
    const hand = inHand(input);
    if (!hand.ok) return hand;
    if (input.from === 'old')
      return hand.value ? explained(hand.value, sizes) : refuse({ code: 'required', field: 'inside', quantity: 'length' });
    const room = roomOf(input);
    if (!room.ok) return room;
    return fitted(room.value, hand.value, sizes, input);
  },
  explain: (input, output) => [
    ...(input.inside === undefined || input.thick === undefined || input.from === 'tried'
      ? []
      : [
          {
            say: 'The old one’s section, as if it were round again.',
            formula: '√(thick · wide)',
            numbers: mm(Math.sqrt(input.thick * (input.wide ?? input.thick))),
          },
          {
            say: 'Every size that it can have been: grown by its section, and what its inside keeps beside that.',
            formula: '1 + q = (d₂ old/d₂ new)³',
          },
        ]),
    ...(output.bottom === undefined
      ? []
      : [
          {
            say: 'The bottom that the tried one lies on: it is thinner by its stretch.',
            formula: input.gland === 'piston' ? 'd = over − 2·d₂·(1 − R)' : 'D = over + 2·d₂·(1 − R)',
            numbers: mm(output.bottom),
          },
        ]),
    ...(output.squeeze === undefined || output.stretch === undefined
      ? [{ say: output.which, numbers: String(output.each[0]?.['old'] ?? '') }]
      : [
          {
            say: 'Each size is put into the groove; what is squeezed, stretched and full as it should be stays.',
            numbers: `${SERIES[input.series].length} sizes, ${input.shelf?.length ?? 0} of the shelf`,
          },
          {
            say: output.which,
            numbers: seatedWords({ squeeze: output.squeeze, stretch: output.stretch, fill: output.fill ?? FILL_MOST }),
          },
        ]),
    ...(output.drag === undefined
      ? []
      : [
          {
            say: 'What it drags with at most after it stood, oiled.',
            formula: '0.6·π·d·(E·d₂·(1.25·C^1.5 + 50·C⁶) + p·b)',
            numbers: newtons(output.drag),
          },
        ]),
  ],
  draw(input, { section, stretch, wants }) {
    const room = stretch === undefined ? undefined : roomOf(input);
    if (!room?.ok || stretch === undefined) return undefined;
    const { gland, height, width } = room.value.groove;
    return { kind: 'gland', gland, section: section * (1 - thinned(stretch)), height, width: wants ?? width };
  },
});

type Size = RingSize & { readonly onShelf?: boolean };

interface Given extends Omit<GrooveGiven, 'inner' | 'outer'> {
  readonly from: 'groove' | 'between' | 'tried' | 'old';
  readonly inner?: number | undefined;
  readonly outer?: number | undefined;
  readonly over?: number | undefined;
  readonly mate?: number | undefined;
  readonly inside?: number | undefined;
  readonly thick?: number | undefined;
  readonly wide?: number | undefined;
  readonly state: OldState;
  readonly shore: number;
  readonly pressure: number;
}

/** The old ring, where it is there and is not the one that was tried. */
function inHand({ from, inside, thick, wide, state }: Given): Result<OldRing | undefined> {
  if (inside === undefined && thick === undefined && from !== 'tried') return ok(undefined);
  if (inside === undefined) return refuse({ code: 'required', field: 'inside', quantity: 'length' });
  if (thick === undefined) return refuse({ code: 'required', field: 'thick', quantity: 'length' });
  return from === 'tried' ? ok(undefined) : oldRing(inside, thick, wide ?? thick, state);
}

/** The room a ring has; its width is not said where shaft and bore alone are known. */
interface Room {
  readonly groove: Groove;
  readonly bottom?: number;
  readonly tried?: string;
}

function roomOf(given: Given): Result<Room> {
  if (given.from === 'tried') return triedRoom(given);
  // Asked wherever there is no ring that was tried.
  const [inner, outer] = [given.inner!, given.outer!];
  // Without a groove nothing limits the width: each ring says what it wants.
  const width = given.from === 'between' && !isFace(given.gland) ? Infinity : given.width;
  const made = grooveOf({ ...given, inner, outer, width });
  return made.ok ? ok({ groove: made.value }) : made;
}

/** The groove as a ring that lies in it tells it. */
function triedRoom(given: Given): Result<Room> {
  const { gland } = given;
  const [inside, section, over, mate] = [given.inside!, given.thick!, given.over!, given.mate!];
  if (gland === 'face-inside' || gland === 'face-outside')
    return refuse({
      code: 'cannot-be',
      field: 'gland',
      received: 'between faces',
      bound: 'a groove in a face is measured: its walls and its depth',
    });
  const bottom = bottomUnder({ inside, section }, gland, over);
  if (bottom === undefined)
    return refuse({
      code: 'cannot-be',
      field: 'over',
      received: mm(over),
      bound: `a ring of ${mm(inside)} × ${mm(section)} would be stretched by more than ${percent(FORMULA_MOST)}, or not lie there at all`,
    });
  const [inner, outer] = gland === 'piston' ? [bottom, mate] : [mate, bottom];
  if (outer <= inner)
    return refuse({
      code: 'cannot-be',
      field: 'mate',
      received: mm(mate),
      bound: `the bottom of the groove is at ${mm(bottom)}: ${gland === 'piston' ? 'a bore is larger' : 'a rod is smaller'}`,
    });
  const made = grooveOf({ ...given, inner, outer });
  if (!made.ok) return made;
  const own = faultsOf(made.value, seated(made.value, { inside, section })).filter(({ grave }) => grave);
  return ok({ groove: made.value, bottom, tried: own.length === 0 ? 'it fits' : own.map(({ words }) => words).join('; ') });
}

interface Answer {
  readonly which: string;
  readonly inside: number;
  readonly section: number;
  readonly squeeze: number | undefined;
  readonly stretch: number | undefined;
  readonly fill: number | undefined;
  readonly drag: number | undefined;
  readonly wants: number | undefined;
  readonly bottom: number | undefined;
  readonly tried: string | undefined;
  readonly each: readonly Row[];
}

/** Sizes by a groove, and by the old ring where it is there. */
function fitted({ groove, bottom, tried }: Room, old: OldRing | undefined, sizes: readonly Size[], given: Given): Result<Answer> {
  const looked = sizes
    .flatMap((size) => {
      const one = triedIn(groove, size, size.onShelf ?? false);
      if (!one) return [];
      const was = old && become(old, size);
      return [{ ...one, was, rank: one.badness + (old ? (was ? OLD_WEIGHS * was.badness : NOT_THE_OLD) : 0) }];
    })
    .toSorted((one, other) => one.rank - other.rank);
  const fits = looked.filter(({ badness }) => badness < FITS);
  // What lies right but for its thickness: the mistake that a hand makes.
  const near = ['thin', 'thick'].flatMap((word) =>
    looked.filter(({ liesRight, why }) => liesRight && why.startsWith(`too ${word}`)).slice(0, NEAR_SHOWN),
  );
  const [best] = fits;
  if (!best) {
    const { from, to } = squeezeOf(groove);
    const wanted = `a section of ${mm(groove.height / (1 - from))} to ${mm(groove.height / (1 - to))} would be right`;
    const [nearest] = near;
    const why = tried === undefined ? '' : `; the tried one: ${tried}`;
    return refuse({
      code: 'none-will-do',
      field: given.from === 'tried' ? 'over' : 'inner',
      received: 'the sizes there are',
      bound: `${nearest ? `the nearest is ${nearest.size.name}, ${nearest.why}; ` : ''}${wanted}${why}`,
    });
  }
  const wasOld = looked
    .filter(({ was, badness }) => was && badness >= FITS)
    .toSorted((one, other) => one.was!.badness - other.was!.badness);
  const shown = [...new Set([...fits.slice(0, SHOWN), ...near, ...wasOld.slice(0, OLD_SHOWN)])];
  const said = tried ?? (old && oldWords(best, wasOld[0]));
  const { squeeze, stretch, fill } = best.at;
  const wants = wantedWidth(groove, best.size);
  return ok({
    which: best.size.name,
    inside: best.size.inside,
    section: best.size.section,
    squeeze,
    stretch,
    fill: wants === undefined ? fill : undefined,
    wants,
    drag: dragIn(groove, best, given),
    bottom,
    tried: said,
    each: shown.map((one) => rowOf(groove, one, given)),
  });
}

type Looked = Candidate & { readonly was: Become | undefined };

/** What the old ring was, beside the one to take. */
function oldWords(best: Looked, wrong: Looked | undefined): string {
  if (best.was) return `can have been ${best.size.name}: ${best.was.words}`;
  if (wrong) return `was ${wrong.size.name} by its measures, which will not do here: ${wrong.why}`;
  return 'was none of those that fit: measure it and the groove again, or it was the wrong one';
}

function rowOf(groove: Groove, one: Looked, given: Given): Row {
  const { size, at, badness, why, was, onShelf, isUnsure } = one;
  const wants = wantedWidth(groove, size);
  const drag = dragIn(groove, one, given);
  const isOut = badness >= FITS;
  return {
    name: size.name,
    so: isOut ? 'out' : isUnsure ? 'unsure' : 'in',
    shelf: onShelf,
    inside: size.inside,
    section: size.section,
    squeeze: at.squeeze,
    stretch: at.stretch,
    ...(wants === undefined ? { fill: at.fill } : {}),
    ...(drag === undefined ? {} : { drag }),
    ...(was ? { old: was.words } : {}),
    why: wants === undefined || isOut ? why : `${why}, in a groove at least ${mm(wants)} wide`,
  };
}

/** Width that a ring wants where there is no groove yet, also thick and in a shallow one, mm, to a tenth. */
function wantedWidth({ width, height, loose, growth }: Groove, { section }: RingSize): number | undefined {
  if (Number.isFinite(width)) return undefined;
  const area = (d: number): number => (Math.PI / 4) * d * d * (1 + growth);
  const needed = Math.max(area(section) / (FILL_MOST * height), area(section + sectionTolerance(section)) / (height - loose));
  return Math.ceil(10 * needed) / 10;
}

/** The hardest first push of a ring that slides; nothing of one that lies still, or that the law does not hold for. */
function dragIn({ gland, motion, inner, outer }: Groove, { at }: Candidate, { shore, pressure }: Given): number | undefined {
  if (motion === 'static') return undefined;
  return firstPush({ diameter: gland === 'piston' ? outer : inner, section: at.section, squeeze: at.squeeze, shore, pressure });
}

/** Sizes that the old ring can have been, where nothing else is known. */
function explained(old: OldRing, sizes: readonly Size[]): Result<Answer> {
  const ranked = sizes
    .flatMap((size) => {
      const was = become(old, size);
      return was ? [{ size, was, rank: was.badness + (size.onShelf ? 0 : OLD_NOT_ON_SHELF) }] : [];
    })
    .toSorted((one, other) => one.rank - other.rank);
  const [best] = ranked;
  if (!best) {
    const off = ({ inside, section }: Size): number => Math.hypot(inside - old.inside, 8 * (section - old.section));
    const nearest = sizes.reduce((one, other) => (off(other) < off(one) ? other : one));
    return refuse({
      code: 'none-will-do',
      field: 'inside',
      received: 'the sizes there are',
      bound: `the nearest is ${nearest.name}; measure it again, or say what it is like: ${Object.values(STATE_WORDS).join(', ')}`,
    });
  }
  return ok({
    which: best.size.name,
    inside: best.size.inside,
    section: best.size.section,
    ...{ squeeze: undefined, stretch: undefined, fill: undefined, drag: undefined, wants: undefined, bottom: undefined },
    tried: `${STATE_WORDS[old.state]}, section ${mm(old.section)} if it were round`,
    each: ranked.slice(0, SHOWN).map(({ size: { name, inside, section, onShelf = false }, was }) => ({
      name,
      so: 'unsure',
      shelf: onShelf,
      inside,
      section,
      old: was.words,
      why: 'no groove to try it in',
    })),
  });
}
