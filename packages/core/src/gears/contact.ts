import { mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok } from '../working/issues.js';

/** How far a move brings a pattern from an end to the middle, mm, before a move has shown it. Common practice. */
const STEP_MM = 0.1;
const LEAST_STEP_MM = 0.02;
const MOST_STEP_MM = 0.5;
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

/** Where the paint is worn off, on both sides of a tooth. */
export interface ContactSpots {
  readonly driveAlong: (typeof ALONG)[number]['id'];
  readonly driveUp: (typeof UP)[number]['id'];
  readonly coastAlong: (typeof ALONG)[number]['id'];
  readonly coastUp: (typeof UP)[number]['id'];
}

export const CONTACT_ALONG = ALONG.map(({ id }) => id);
export const CONTACT_UP = UP.map(({ id }) => id);

/** Of a place along or up the tooth, from −1 at the toe or the flank to 1 at the heel or the face. */
export function contactShare(place: ContactSpots[keyof ContactSpots]): number {
  return PLACES[place];
}

export interface ContactOff {
  /** Of the pinion: 1 too far out, −1 too deep. */
  readonly depth: number;
  /** Of the ring: 1 too far from the pinion, −1 too close. */
  readonly apart: number;
}

/** The two things that tell the depth: height on both sides, and heel of one against toe of the other. */
function depthSigns(spots: ContactSpots): { readonly height: number; readonly along: number } {
  const [dx, dy, cx, cy] = [PLACES[spots.driveAlong], PLACES[spots.driveUp], PLACES[spots.coastAlong], PLACES[spots.coastUp]];
  return { height: (dy + cy) / 2, along: (dx - cx) / 2 };
}

/** How far off a pattern says that the pinion and the ring stand: by both signs of depth, and all the way where one is at the very end. */
export function contactOff(spots: ContactSpots): ContactOff {
  const { height, along } = depthSigns(spots);
  const depth = Math.abs(height) === 1 ? height : Math.abs(along) === 1 ? along : (height + along) / 2;
  return { depth, apart: (PLACES[spots.driveAlong] + PLACES[spots.coastAlong]) / 2 };
}

/** One side high and the other deep, or a height and a heel against toe that say the opposite: no move mends both. */
function sidesContradict(spots: ContactSpots): boolean {
  const [dy, cy] = [PLACES[spots.driveUp], PLACES[spots.coastUp]];
  const { height, along } = depthSigns(spots);
  return dy * cy < 0 || (height * along < 0 && Math.abs(height) > GOOD && Math.abs(along) > GOOD);
}

/** How much of what a move showed is believed, on a scale of ratios: an eye reads roughly. */
const TRUSTED = 0.7;

/** A pattern that changed by less than this did not answer the move. */
const ANSWERED = 0.2;

/**
 * How far a move brings a pattern from an end to the middle, mm, as the last move showed it: its way by
 * what it changed, and of that, for an eye reads roughly, seven tenths on a scale of ratios. One that
 * changed next to nothing lies beyond the end of the tooth: twice as far. One that went the wrong way
 * says nothing: as before.
 *
 * @param moved mm, the way that was to mend it
 * @param used mm, what was taken for it then
 */
export function contactStep(before: number, after: number, moved: number, used = STEP_MM): number {
  const changed = before - after;
  if (Math.abs(changed) >= ANSWERED && Math.sign(changed) !== Math.sign(moved)) return used;
  const step = Math.abs(changed) < ANSWERED ? 2 * used : used ** (1 - TRUSTED) * (moved / changed) ** TRUSTED;
  return Math.min(MOST_STEP_MM, Math.max(LEAST_STEP_MM, step));
}

/**
 * What does the pattern on the teeth say?
 *
 * Depth = mean height on drive and coast, or where that is in the middle half of heel drive less heel coast: a pinion
 * that is too far out marks the faces, heel on drive and toe on coast; too deep the flanks, the other way about.
 * Backlash = mean along: both to the toe is too close, both to the heel too far. Each times what brings a pattern
 * from an end to the middle, all of it from the very end: 0.1 mm until a move has shown it. The pinion first, then the
 * backlash again. Sides that contradict each other are never good. Holds for ring gears of one pinion with their axes
 * square.
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
    {
      kind: 'number',
      name: 'pinionStep',
      label: 'Pinion, end to middle',
      quantity: 'length',
      min: LEAST_STEP_MM,
      max: MOST_STEP_MM,
      default: STEP_MM,
      help: 'What brings the pattern from the face or the flank to the middle; the last move shows it.',
    },
    {
      kind: 'number',
      name: 'ringStep',
      label: 'Ring, end to middle',
      quantity: 'length',
      min: LEAST_STEP_MM,
      max: MOST_STEP_MM,
      default: STEP_MM,
      help: 'What brings the pattern from the toe or the heel to the middle.',
    },
  ],
  outputs: [
    {
      kind: 'choice',
      name: 'verdict',
      label: 'The pattern',
      choices: [
        { id: 'in', label: 'is good' },
        { id: 'out', label: 'wants a move' },
        { id: 'unsure', label: 'contradicts itself' },
      ],
      help: 'In the middle or not; or the two sides say opposite things.',
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
  serves: [{ at: 'build', families: ['drive axle with pinion and carrier'], rank: 3 }],
  example: { driveAlong: 'heel', driveUp: 'face', coastAlong: 'toe', coastUp: 'face' },
  compute(input) {
    const { depth, apart } = contactOff(input);
    const isSkew = sidesContradict(input);
    const isDeepWrong = !isSkew && Math.abs(depth) > GOOD;
    const isApartWrong = !isSkew && Math.abs(apart) > GOOD;
    const pinion = isDeepWrong ? depth * input.pinionStep : 0;
    const ring = isApartWrong ? apart * input.ringStep : 0;
    const what = isSkew
      ? 'The sides contradict each other: mark again, thinner. If it stays, the housing or the gears are bent or not a pair.'
      : isDeepWrong
        ? `The pinion stands too ${depth > 0 ? 'far out: deeper' : 'deep: further out'} by some ${mm(Math.abs(pinion))}. Then set the backlash again and mark anew.`
        : isApartWrong
          ? `The ring stands too ${apart > 0 ? 'far from the pinion: closer' : 'close to the pinion: away'} by some ${mm(Math.abs(ring))}, within the backlash window.`
          : 'Good: leave it.';
    const verdict = isSkew ? ('unsure' as const) : isDeepWrong || isApartWrong ? ('out' as const) : ('in' as const);
    return ok({ verdict, pinion, ring, what });
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
  draw: (input) => ({ kind: 'contact', ...contactPicture(input) }),
});

/** Both sides as they are drawn: shares of the way from toe to heel and from root to tip. */
export function contactPicture({ driveAlong, driveUp, coastAlong, coastUp }: ContactSpots): ContactPicture {
  const share = (place: ContactSpots[keyof ContactSpots]): number => (contactShare(place) + 1) / 2;
  return {
    drive: { along: share(driveAlong), up: share(driveUp) },
    coast: { along: share(coastAlong), up: share(coastUp) },
  };
}

interface Spot {
  readonly along: number;
  readonly up: number;
}

export interface ContactPicture {
  readonly drive: Spot;
  readonly coast: Spot;
}
