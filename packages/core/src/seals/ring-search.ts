import { mm, percent } from '../quantity/write.js';
import type { Row } from '../working/describe.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { grooveOf, type GrooveGiven } from './groove-fields.js';
import { firstPush } from './oring-drag.js';
import { FILL_MOST, FORMULA_MOST, faultsOf, isFace, seated, squeezeOf, type Groove } from './ring.js';
import { STATE_WORDS, become, bottomUnder, oldRing, type Become, type OldRing, type OldState } from './ring-in-hand.js';
import { sectionTolerance, type RingSize } from './ring-sizes.js';
import { FITS, triedIn, type Candidate } from './tried-in.js';

const SHOWN = 12;
/** Of those that are too thin, and of those that are too thick. */
const NEAR_SHOWN = 3;
/** Of what the old one can have been and will not do. */
const OLD_SHOWN = 2;
/** How much the old one speaks beside the groove: the groove decides, the old one may have been the wrong ring. */
const OLD_WEIGHS = 0.2;
const NOT_THE_OLD = 3;
/** Where nothing but the old one is known, the one on the shelf of two that explain it alike. */
const OLD_NOT_ON_SHELF = 0.5;

/** A size that is looked at; of the shelf, or of a standard. */
export type Size = RingSize & { readonly onShelf?: boolean };

/** What is known, as it was typed. */
export interface Given extends Omit<GrooveGiven, 'inner' | 'outer'> {
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

/** Rings by all that is known, the best first, with what is wrong with the others. */
export function searchRings(given: Given, sizes: readonly Size[]): Result<Answer> {
  const hand = inHand(given);
  if (!hand.ok) return hand;
  if (given.from === 'old')
    return hand.value ? explained(hand.value, sizes) : refuse({ code: 'required', field: 'inside', quantity: 'length' });
  const room = roomOf(given);
  return room.ok ? fitted(room.value, hand.value, sizes, given) : room;
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

/** The room that a ring has by what is known of it; refuses one that cannot be. */
export function roomOf(given: Given): Result<Room> {
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
