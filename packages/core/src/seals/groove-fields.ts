import { mm, percent } from '../quantity/write.js';
import { ok, refuse, type Result } from '../working/issues.js';
import type { Drawing } from '../working/describe.js';
import { isFace, type Gland, type Groove, type Motion } from './ring.js';

/** Linear expansion of rubber, per kelvin: handbook value for nitrile, others lie within a fifth of it; from memory. */
const RUBBER_PER_K = 1.8e-4;

/** The groove, as one measures it. */
export const GROOVE_FIELDS = [
  {
    kind: 'choice',
    name: 'gland',
    label: 'The ring lies',
    default: 'piston',
    choices: [
      { id: 'piston', label: 'round a piston or spigot' },
      { id: 'rod', label: 'in a bore, round a rod' },
      { id: 'face-inside', label: 'between faces, pressure within' },
      { id: 'face-outside', label: 'between faces, pressure outside' },
    ],
    help: 'Where its groove is cut.',
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
    help: 'What slides is squeezed less.',
  },
  {
    kind: 'number',
    name: 'inner',
    label: 'Smaller diameter',
    symbol: 'd',
    quantity: 'length',
    above: 0,
    max: 1000,
    help: 'Bottom of the groove on a piston; the rod; the inner wall of a groove in a face.',
  },
  {
    kind: 'number',
    name: 'outer',
    label: 'Larger diameter',
    symbol: 'D',
    quantity: 'length',
    above: 0,
    max: 1000,
    help: 'The bore round a piston; bottom of the groove round a rod; the outer wall of a groove in a face.',
  },
  {
    kind: 'number',
    name: 'depth',
    label: 'Depth in the face',
    symbol: 't',
    quantity: 'length',
    above: 0,
    max: 30,
    onlyFor: { field: 'gland', choices: ['face-inside', 'face-outside'] },
    help: 'With the faces together.',
  },
  {
    kind: 'number',
    name: 'width',
    label: 'Width of the groove',
    symbol: 'b',
    quantity: 'length',
    above: 0,
    max: 60,
    onlyFor: { field: 'gland', choices: ['piston', 'rod'] },
    help: 'Along the axis; in a face it follows from its walls.',
  },
  {
    kind: 'number',
    name: 'loose',
    label: 'Groove true to ±',
    quantity: 'length',
    min: 0,
    max: 1,
    default: 0.05,
    help: 'Of its depth, with the play of the parts.',
  },
  {
    kind: 'number',
    name: 'warmer',
    label: 'Warmer than now by',
    quantity: 'temperature difference',
    min: 0,
    max: 300,
    default: 0,
    help: 'Rubber grows ten times as much as steel.',
  },
  {
    kind: 'number',
    name: 'swell',
    label: 'Swells by',
    quantity: 'ratio',
    share: true,
    min: 0,
    max: 1,
    default: 0,
    help: 'By volume, in its fluid; 10 % is common in oil.',
  },
] as const;

export interface GrooveGiven {
  readonly gland: Gland;
  readonly motion: Motion;
  readonly inner: number;
  readonly outer: number;
  readonly depth?: number | undefined;
  readonly width?: number | undefined;
  readonly loose: number;
  readonly warmer: number;
  readonly swell: number;
}

/** The room that a ring has; refuses one that cannot be. */
export function grooveOf(given: GrooveGiven): Result<Groove> {
  const { gland, motion, inner, outer, loose } = given;
  if (outer <= inner)
    return refuse({ code: 'too-small', field: 'outer', received: mm(outer), bound: `more than the smaller one, ${mm(inner)}` });
  const inFace = isFace(gland);
  const needed = inFace ? 'depth' : 'width';
  const measured = given[needed];
  if (measured === undefined) return refuse({ code: 'required', field: needed, quantity: 'length' });
  if (inFace && motion !== 'static')
    return refuse({
      code: 'cannot-be',
      field: 'motion',
      received: motion,
      bound: 'between faces nothing moves; a face that turns has a face seal',
    });
  const radial = (outer - inner) / 2;
  const [height, width] = inFace ? [measured, radial] : [radial, measured];
  if (loose >= height)
    return refuse({ code: 'too-large', field: 'loose', received: mm(loose), bound: `less than the groove is deep, ${mm(height)}` });
  const growth = (1 + given.swell) * (1 + RUBBER_PER_K * given.warmer) ** 3 - 1;
  return ok({ gland, motion, inner, outer, height, width, loose, growth });
}

/** A ring in the groove, in section; `section` is what is left of it. */
export function glandDrawing(given: GrooveGiven, section: number): Drawing {
  const groove = grooveOf(given);
  const { height, width } = groove.ok ? groove.value : { height: section, width: section };
  return { kind: 'gland', gland: given.gland, section, height, width };
}

/** What a ring comes to in the groove, as a line of words. */
export function seatedWords({
  squeeze,
  stretch,
  fill,
}: {
  readonly squeeze: number;
  readonly stretch: number;
  readonly fill: number;
}): string {
  return `squeezed ${percent(squeeze)}, stretched ${percent(stretch)}, groove ${percent(fill)} full`;
}
