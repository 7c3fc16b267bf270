import { bestPacks, bestPair, firstThenSecond, type Pack, type PackPair } from '../math/shim-pack.js';
import { MOST_PIECES_FIELD, SHELF_FIELD, isInside, noneWords, packWords, shelfOf, type Ends } from '../bearings/shelf-field.js';
import { microns, mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';

const RADIANS = Math.PI / 180;
/** Packs at the teeth that are tried with the rest of the shelf at the other side. */
const TRIED = 12;

/**
 * Backlash and preload: which shims on both sides of the carrier?
 *
 * Ring gear shift = (b − target)/k, towards the pinion; k from two readings, or
 * 2·tan φ·sin Γ/cos ψ (0.70 for 20° and 75°, straight). A dial off the ring's radius is scaled, and k with it. Where the
 * backlash varies by less than its window the target leaves every place inside, else the tightest place is set to the
 * middle. Both packs together grow by the play and the preload. While it is read a carrier with play is pushed to one
 * side, and stands against that pack. A preload presses both bearings: each side takes the share that the give of the
 * other leaves it, so that the ring stays where it is. Refused where no two packs of the shelf bring it inside. Holds
 * while the teeth touch near the middle.
 *
 * Example: 0.30 mm where 0.15 is wanted, k 0.7: 0.214 mm towards the pinion.
 */
export const backlash = defineWorking({
  id: 'gear.backlash',
  title: 'Backlash and preload: which shims on both sides of the carrier?',
  area: 'gears',
  inputs: [
    {
      kind: 'list',
      name: 'readings',
      label: 'Backlash',
      symbol: 'b',
      quantity: 'length',
      min: 0,
      max: 5,
      fewest: 1,
      most: 24,
      help: 'Dial on a tooth, at four places or more round the ring.',
    },
    { kind: 'number', name: 'from', label: 'Wanted from', quantity: 'length', min: 0, max: 2, help: 'Window of the sheet.' },
    { kind: 'number', name: 'to', label: 'Wanted to', quantity: 'length', above: 0, max: 2, help: 'Window of the sheet.' },
    {
      kind: 'number',
      name: 'teethSide',
      label: 'Pack at the teeth now',
      quantity: 'length',
      min: 0,
      max: 30,
      help: 'On the side to which the ring’s teeth point: thinner brings it to the pinion.',
    },
    {
      kind: 'number',
      name: 'otherSide',
      label: 'Pack at the other side now',
      quantity: 'length',
      min: 0,
      max: 30,
      help: 'Behind the ring gear.',
    },
    {
      kind: 'number',
      name: 'play',
      label: 'Play of the carrier now',
      quantity: 'length',
      min: 0,
      max: 5,
      default: 0,
      help: 'Dial along the axle, without preload; 0 when there is none.',
    },
    {
      kind: 'choice',
      name: 'pushed',
      label: 'Pushed while it was read',
      default: 'teeth',
      choices: [
        { id: 'teeth', label: 'to the pinion, against the pack at the teeth' },
        { id: 'other', label: 'away from it, against the other pack' },
      ],
      help: 'With play the ring stands on one side or the other; without any it is all one.',
    },
    {
      kind: 'number',
      name: 'preload',
      label: 'Preload wanted',
      quantity: 'length',
      min: 0,
      max: 1,
      default: 0,
      help: 'As thickness over no play, both sides together.',
    },
    {
      kind: 'number',
      name: 'stiffer',
      label: 'Bearing at the teeth, stiffer by',
      quantity: 'ratio',
      min: 0.1,
      max: 10,
      default: 1,
      help: 'Its stiffness over that of the other one; 1 for two alike.',
    },
    {
      kind: 'choice',
      name: 'rule',
      label: 'Backlash for a shift',
      default: 'two-readings',
      choices: [
        { id: 'two-readings', label: 'from two readings' },
        { id: 'geometry', label: 'from the angles of the gear' },
      ],
      help: 'Two readings are better: move the ring by a known shim and read again.',
    },
    {
      kind: 'number',
      name: 'before',
      label: 'Backlash before',
      quantity: 'length',
      min: 0,
      max: 5,
      optional: true,
      onlyFor: { field: 'rule', choices: ['two-readings'] },
      help: 'At the same tooth, before it was moved.',
    },
    {
      kind: 'number',
      name: 'moved',
      label: 'Moved to the pinion by',
      quantity: 'length',
      min: -2,
      max: 2,
      optional: true,
      onlyFor: { field: 'rule', choices: ['two-readings'] },
      help: 'Between the two readings; minus is away from it.',
    },
    {
      kind: 'number',
      name: 'pressureAngle',
      label: 'Pressure angle',
      symbol: 'φ',
      quantity: 'angle',
      min: 10,
      max: 35,
      default: 20,
      onlyFor: { field: 'rule', choices: ['geometry'] },
      help: '20° as a rule.',
    },
    {
      kind: 'number',
      name: 'pitchAngle',
      label: 'Pitch angle of the ring',
      symbol: 'Γ',
      quantity: 'angle',
      min: 30,
      max: 89,
      default: 75,
      onlyFor: { field: 'rule', choices: ['geometry'] },
      help: 'atan of the ratio at square shafts: 3.5 gives 74°.',
    },
    {
      kind: 'number',
      name: 'spiral',
      label: 'Spiral angle',
      symbol: 'ψ',
      quantity: 'angle',
      min: 0,
      max: 60,
      default: 0,
      onlyFor: { field: 'rule', choices: ['geometry'] },
      help: '35° for usual spiral gears, 0° for straight ones.',
    },
    {
      kind: 'number',
      name: 'dialRadius',
      label: 'Dial at a radius of',
      quantity: 'length',
      above: 0,
      max: 1000,
      optional: true,
      help: 'Where it touches, if not at the teeth’s outer end.',
    },
    {
      kind: 'number',
      name: 'ringRadius',
      label: 'Ring’s radius',
      quantity: 'length',
      above: 0,
      max: 1000,
      optional: true,
      help: 'At the teeth’s outer end.',
    },
    { ...SHELF_FIELD, optional: true, help: 'Left empty only the thicknesses are worked out.' },
    MOST_PIECES_FIELD,
  ],
  outputs: [
    { kind: 'number', name: 'shift', label: 'Ring to the pinion by', quantity: 'length', help: 'Minus is away from it.' },
    { kind: 'number', name: 'teeth', label: 'Pack at the teeth', quantity: 'length', help: 'Exactly.' },
    { kind: 'number', name: 'other', label: 'Pack at the other side', quantity: 'length', help: 'Exactly.' },
    { kind: 'number', name: 'k', label: 'Backlash for a shift', symbol: 'k', quantity: 'ratio', help: 'mm of backlash for each mm.' },
    { kind: 'number', name: 'tightest', label: 'Tightest place', quantity: 'length', help: 'As read, at the ring’s radius.' },
    { kind: 'number', name: 'target', label: 'To become', quantity: 'length', help: 'At the tightest place.' },
    { kind: 'number', name: 'varies', label: 'Varies by', quantity: 'length', help: 'Widest less tightest: run-out of the ring.' },
    { kind: 'text', name: 'teethPack', label: 'At the teeth put', longest: 200, optional: true, help: 'From the shelf.' },
    { kind: 'text', name: 'otherPack', label: 'At the other side put', longest: 200, optional: true, help: 'From the shelf.' },
    {
      kind: 'number',
      name: 'gives',
      label: 'Gives backlash',
      quantity: 'length',
      optional: true,
      help: 'At the tightest place, with those packs.',
    },
    { kind: 'number', name: 'givesPreload', label: 'And preload', quantity: 'length', optional: true, help: 'Minus is play.' },
    { kind: 'text', name: 'what', label: 'So', longest: 200, help: 'What to see to.' },
  ],
  sources: [
    { kind: 'derivation', document: 'geometry of a bevel gear moved along its axis', for: 'k = 2·tan φ·sin Γ/cos ψ' },
    { kind: 'derivation', document: 'two springs in one preload: each gives by the stiffness of the other', for: 'where the preload goes' },
    { kind: 'common practice', document: 'all places inside the window, else set at the tightest', for: 'what is set' },
  ],
  cautions: ['Do not turn the ring with the pry bar in the teeth.'],
  serves: [
    { at: 'build', families: ['drive axle with pinion and carrier'], rank: 2 },
    { at: 'build', families: ['PTO gearbox'], rank: 3 },
    {
      at: 'setting',
      kinds: ['backlash'],
      preset: { from: 'from', to: 'to', shelf: 'shelf', readings: 'readings' },
      packs: ['teethPack', 'otherPack'],
      shifts: true,
    },
  ],
  example: {
    readings: '0.30; 0.31; 0.33; 0.32',
    from: 0.13,
    to: 0.18,
    teethSide: 2.1,
    otherSide: 1.9,
    play: 0.05,
    preload: 0.1,
    rule: 'geometry',
    shelf: [
      { thickness: 2, count: 2 },
      { thickness: 1.5, count: 2 },
      { thickness: 0.5, count: 4 },
      { thickness: 0.2, count: 4 },
      { thickness: 0.1, count: 4 },
      { thickness: 0.05, count: 4 },
    ],
  },
  compute(input) {
    if (input.to < input.from) return refuse({ code: 'window-upside-down', field: 'to', received: mm(input.to), bound: mm(input.from) });
    if ((input.dialRadius === undefined) !== (input.ringRadius === undefined))
      return refuse({ code: 'required', field: input.dialRadius === undefined ? 'dialRadius' : 'ringRadius', quantity: 'length' });
    const scale = input.dialRadius === undefined || input.ringRadius === undefined ? 1 : input.ringRadius / input.dialRadius;
    const rule = slopeOf(input, scale);
    if (!rule.ok) return rule;
    const k = rule.value;
    const tightest = Math.min(...input.readings) * scale;
    const varies = (Math.max(...input.readings) - Math.min(...input.readings)) * scale;
    // A ring that varies by more than its window cannot be inside everywhere.
    const room = input.to - input.from - varies;
    const window = room >= 0 ? { from: input.from, to: input.to - varies } : { from: input.from, to: input.to };
    const target = (window.from + window.to) / 2;
    const shift = (tightest - target) / k;
    // Each side gives by what the other is stiffer: so much of the preload at each leaves the ring where it is.
    const atTeeth = input.preload / (1 + input.stiffer);
    const teeth = input.teethSide - shift + atTeeth + (input.pushed === 'other' ? input.play : 0);
    const other = input.otherSide + shift + (input.preload - atTeeth) + (input.pushed === 'teeth' ? input.play : 0);
    if (teeth < 0 || other < 0)
      return refuse({
        code: 'cannot-be',
        field: teeth < 0 ? 'teethSide' : 'otherSide',
        received: mm(teeth < 0 ? input.teethSide : input.otherSide),
        bound: `it would have to be ${mm(Math.min(teeth, other))}: the parts are not as they were`,
      });
    const what =
      room < 0
        ? 'It varies by more than the window: the ring is off its seat, or bent. Dirt or a burr first.'
        : room >= 0 && isInside(tightest, window)
          ? 'The backlash is in as it is.'
          : shift > 0
            ? 'Too wide: the ring goes to the pinion.'
            : 'Too tight: the ring goes away from the pinion.';
    const base = { shift, teeth, other, k, tightest, target, varies, what };
    if (input.shelf === undefined)
      return ok({ ...base, teethPack: undefined, otherPack: undefined, gives: undefined, givesPreload: undefined });
    const shelf = shelfOf(input.shelf);
    if (!shelf.ok) return shelf;
    const preloadOf = (first: number, second: number): number => first + second - input.teethSide - input.otherSide - input.play;
    // Where the ring stands then, towards the pinion from where it was read.
    const movedBy = (first: number, second: number): number => {
      const preload = preloadOf(first, second);
      const pressed = Math.max(0, preload) / (1 + input.stiffer);
      const against = input.pushed === 'teeth' ? input.teethSide - first : input.teethSide + input.play - first + Math.min(0, preload);
      return against + pressed;
    };
    const gives = (first: Pack, second: Pack): number => tightest - k * movedBy(first.thickness, second.thickness);
    // Both as near as can be; where that leaves the backlash outside, the teeth first, of the nearest that do.
    const wanted = [teeth, other] as const;
    const isIn = ({ first, second }: PackPair, within: Ends): boolean => isInside(gives(first, second), within);
    const both = [bestPair(wanted, shelf.value, input.mostPieces)].filter((one) => one !== undefined);
    const pairs = both.some((one) => isIn(one, window))
      ? both
      : [...both, ...firstThenSecond(wanted, shelf.value, input.mostPieces, TRIED)];
    // Every place inside where the shelf can do it, else the tightest one.
    const pair = pairs.find((one) => isIn(one, window)) ?? pairs.find((one) => isIn(one, input));
    if (!pair) {
      const ends = [input.from, input.to].map((end) => teeth + (end - target) / k);
      const [nearest] = bestPacks(teeth, shelf.value, input.mostPieces, 1);
      const words = nearest && `${packWords(nearest, shelf.value)}, gives ${mm(target - k * (teeth - nearest.thickness))} of backlash`;
      return refuse({
        code: 'none-will-do',
        field: 'shelf',
        received: 'the shims',
        bound: noneWords(words, { from: ends[0]!, to: ends[1]! }, 'at the teeth'),
      });
    }
    const widest = gives(pair.first, pair.second) + varies;
    return ok({
      ...base,
      what: room >= 0 && !isInside(widest, input) ? `${what} With these shims its widest place has ${mm(widest, input)}.` : what,
      teethPack: packWords(pair.first, shelf.value),
      otherPack: packWords(pair.second, shelf.value),
      gives: gives(pair.first, pair.second),
      givesPreload: preloadOf(pair.first.thickness, pair.second.thickness),
    });
  },
  explain: (input, output) => [
    {
      say:
        input.rule === 'geometry'
          ? 'What a shift takes of the backlash, by the angles.'
          : 'What a shift takes of the backlash, as it was seen.',
      formula: input.rule === 'geometry' ? 'k = 2·tan φ·sin Γ/cos ψ' : 'k = (b before − b)/moved',
      numbers: output.k.toFixed(3),
    },
    {
      say: 'The ring moves.',
      formula: '(b − target)/k',
      numbers: `(${mm(output.tightest)} − ${mm(output.target)})/${output.k.toFixed(3)} = ${mm(output.shift)}`,
    },
    {
      say: `Thinner at the teeth by the shift; both together thicker by play and preload${input.preload > 0 ? `, of which the teeth take ${mm(input.preload / (1 + input.stiffer))}` : ''}.`,
      numbers: `${mm(output.teeth)} and ${mm(output.other)}`,
    },
    ...(output.teethPack === undefined || output.gives === undefined || output.givesPreload === undefined
      ? []
      : [
          {
            say: 'From one shelf, both packs.',
            numbers: `${output.teethPack} and ${output.otherPack ?? ''}: backlash ${mm(output.gives, input)}, preload ${microns(output.givesPreload)}`,
          },
        ]),
  ],
});

interface Slope {
  readonly rule: 'two-readings' | 'geometry';
  readonly readings: readonly number[];
  readonly before: number | undefined;
  readonly moved: number | undefined;
  readonly pressureAngle: number;
  readonly pitchAngle: number;
  readonly spiral: number;
}

/** Backlash for a shift, mm for each mm; between what no gear has less of and what none has more of. */
function slopeOf({ rule, readings, before, moved, pressureAngle, pitchAngle, spiral }: Slope, scale: number): Result<number> {
  if (rule === 'geometry') return ok((2 * Math.tan(pressureAngle * RADIANS) * Math.sin(pitchAngle * RADIANS)) / Math.cos(spiral * RADIANS));
  if (before === undefined) return refuse({ code: 'required', field: 'before', quantity: 'length' });
  if (moved === undefined) return refuse({ code: 'required', field: 'moved', quantity: 'length' });
  if (moved === 0)
    return refuse({ code: 'cannot-be', field: 'moved', received: mm(moved), bound: 'without a move there is no second reading' });
  const k = ((before - readings[0]!) * scale) / moved;
  if (k < 0.2 || k > 2)
    return refuse({
      code: 'cannot-be',
      field: 'before',
      received: mm(before),
      bound: `${k.toFixed(2)} mm of backlash for each mm is no gear’s: from 0.2 to 2; look at the signs`,
    });
  return ok(k);
}
