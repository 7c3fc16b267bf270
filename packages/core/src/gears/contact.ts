import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/describe.js';
import { ok } from '../working/issues.js';

/** Moves for a pattern that is a little or far off, mm. Common practice: then a new pattern. */
const PINION_STEP_MM = 0.1;
const RING_STEP_MM = 0.1;
/** Off the middle, where a pattern stops being good, on a scale of −1 to 1. */
const GOOD = 0.25;

const ALONG = [
  { id: 'centre', label: 'middle' },
  { id: 'toe', label: 'toe: narrow end' },
  { id: 'toe-ish', label: 'a little to the toe' },
  { id: 'heel-ish', label: 'a little to the heel' },
  { id: 'heel', label: 'heel: wide end' },
] as const;
const UP = [
  { id: 'centre', label: 'middle' },
  { id: 'flank', label: 'flank: deep' },
  { id: 'flank-ish', label: 'a little to the flank' },
  { id: 'face-ish', label: 'a little to the face' },
  { id: 'face', label: 'face: at the top' },
] as const;
const PLACES = {
  centre: 0,
  toe: -1,
  'toe-ish': -0.5,
  'heel-ish': 0.5,
  heel: 1,
  flank: -1,
  'flank-ish': -0.5,
  'face-ish': 0.5,
  face: 1,
} as const;

/**
 * What does the pattern on the teeth say?
 *
 * Depth = mean height on drive and coast, and half of heel drive less heel coast: a pinion that is too far out
 * marks the faces, heel on drive and toe on coast; too deep the flanks, the other way about. Backlash =
 * mean along: both to the toe is too close, both to the heel too far. The pinion first, then the
 * backlash again. Holds for ring gears of one pinion with their axes square.
 *
 * Example: face and heel on drive, face and toe on coast: a thicker pinion shim.
 */
export const contact = defineWorking({
  id: 'gear.contact',
  title: 'What does the pattern on the teeth say?',
  area: 'gears',
  inputs: [
    {
      kind: 'choice',
      name: 'driveAlong',
      label: 'Drive side, along',
      default: 'centre',
      choices: ALONG,
      help: 'The convex side that pushes forward.',
    },
    { kind: 'choice', name: 'driveUp', label: 'Drive side, up', default: 'centre', choices: UP, help: 'From the root up.' },
    { kind: 'choice', name: 'coastAlong', label: 'Coast side, along', default: 'centre', choices: ALONG, help: 'The hollow side.' },
    { kind: 'choice', name: 'coastUp', label: 'Coast side, up', default: 'centre', choices: UP, help: 'From the root up.' },
  ],
  outputs: [
    {
      kind: 'choice',
      name: 'verdict',
      label: 'The pattern',
      choices: [
        { id: 'in', label: 'is good' },
        { id: 'out', label: 'wants a move' },
      ],
      help: 'In the middle, or not.',
    },
    {
      kind: 'number',
      name: 'pinion',
      label: 'Pinion deeper by about',
      quantity: 'length',
      help: 'Minus is further out; then a new pattern.',
    },
    {
      kind: 'number',
      name: 'ring',
      label: 'Ring to the pinion by about',
      quantity: 'length',
      help: 'Minus is away; after the pinion is right.',
    },
    { kind: 'text', name: 'what', label: 'So', longest: 300, help: 'One thing at a time.' },
  ],
  sources: [
    {
      kind: 'common practice',
      document: 'reading of bevel gear patterns on drive and coast side',
      for: 'which move answers which pattern',
    },
  ],
  cautions: ['Turn it by hand only, against a rag held on the ring: fingers out of the teeth.'],
  example: { driveAlong: 'heel', driveUp: 'face', coastAlong: 'toe', coastUp: 'face' },
  compute(input) {
    const [dx, dy, cx, cy] = [PLACES[input.driveAlong], PLACES[input.driveUp], PLACES[input.coastAlong], PLACES[input.coastUp]];
    const shallow = ((dy + cy) / 2 + (dx - cx) / 2) / 2;
    const apart = (dx + cx) / 2;
    const isDeepWrong = Math.abs(shallow) > GOOD;
    const isApartWrong = Math.abs(apart) > GOOD;
    const pinion = isDeepWrong ? shallow * PINION_STEP_MM : 0;
    const ring = isApartWrong ? apart * RING_STEP_MM : 0;
    const isSkew = !isDeepWrong && !isApartWrong && [dx, dy, cx, cy].some((off) => Math.abs(off) > 0.75);
    const what = isSkew
      ? 'The sides contradict each other: marking again, thinner. If it stays, the housing or the gears are bent or not a pair.'
      : isDeepWrong
        ? `The pinion stands too ${shallow > 0 ? 'far out: deeper' : 'deep: further out'} by some ${mm(Math.abs(pinion))}. Then set the backlash again and mark anew.`
        : isApartWrong
          ? `The ring stands too ${apart > 0 ? 'far from the pinion: closer' : 'close to the pinion: away'} by some ${mm(Math.abs(ring))}, within the backlash window.`
          : 'Good: leave it.';
    return ok({ verdict: isDeepWrong || isApartWrong || isSkew ? ('out' as const) : ('in' as const), pinion, ring, what });
  },
  explain: (input, output) => [
    {
      say: 'Up and down, and heel against toe, tell the pinion’s depth.',
      numbers: `drive ${input.driveUp}, coast ${input.coastUp}: ${mm(output.pinion)} deeper`,
    },
    {
      say: 'Both to one end tells the backlash.',
      numbers: `drive ${input.driveAlong}, coast ${input.coastAlong}: ${mm(output.ring)} to the pinion`,
    },
    { say: output.what },
  ],
  draw: (input) => ({
    kind: 'contact',
    drive: { along: (PLACES[input.driveAlong] + 1) / 2, up: (PLACES[input.driveUp] + 1) / 2 },
    coast: { along: (PLACES[input.coastAlong] + 1) / 2, up: (PLACES[input.coastUp] + 1) / 2 },
  }),
});
