import { mm, newtons } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { GROOVE_FIELDS, seatedWords } from './groove-fields.js';
import { DRAG_FIELDS } from './oring-drag.js';
import { FILL_MOST, thinned } from './ring.js';
import { STATE_WORDS, type OldState } from './ring-in-hand.js';
import { roomOf, searchRings, type Size } from './ring-search.js';
import { AS568, AS568_BOSS, ISO_3601, RING_SIZES, WHOLE_MM } from './ring-sizes.js';
import { SHELF_FIELD, ringsOn } from './tried-in.js';

const SERIES = { all: RING_SIZES, inch: [...AS568, ...AS568_BOSS], metric: [...ISO_3601, ...WHOLE_MM] } as const;
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
    ...DRAG_FIELDS.map((field) => ({ ...field, onlyFor: { field: 'motion', choices: ['moving', 'turning'] } })),
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
    return searchRings(input, sizes);
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
