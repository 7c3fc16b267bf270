import { RowsOf } from '@jubb/sheet/given';
import { find, type Joint } from '@jubb/sheet';
import { keptOrNot } from '../runs/way-off.js';
import { ArrayMaxSize, ArrayMinSize, ArrayUnique, IsArray, IsInt, IsNumber, IsOptional, IsUUID, Max, Min } from 'class-validator';
import { lineDetails, joined } from '../words.js';
import { defineKind, wrong, type Kind, type Rule, type Wrong } from './define-kind.js';
import { Pieces, Ref, Words } from './fields.js';
import { placeWrong } from './places.js';

/** A place on a photo, in thousandths of its width and height from the upper left. */
export class Spot {
  @IsNumber() @Min(0) @Max(1000) x: number;
  @IsNumber() @Min(0) @Max(1000) y: number;
}

/** A line of the strip ledger. */
export class CameOffPayload {
  @IsOptional() @Ref() part?: string;
  @Words(200) name: string;
  @Pieces() count: number;
  @IsOptional() @Words(100) place?: string;
  @IsOptional() @Words(60) tray?: string;
  /** Thread and length, or a length alone, where several differ: "M8 x 25". */
  @IsOptional() @Words(60) size?: string;
  /** Which way it sat: "bevel up", "lip in". */
  @IsOptional() @Words(100) direction?: string;
  /** What was marked before it came off: it is met again in the build. */
  @IsOptional() @Words(200) mark?: string;
  /** What it looked like. */
  @IsOptional() @Words(200) condition?: string;
  /** The stack that it lay in, on one axis with others. */
  @IsOptional() @Words(60) stack?: string;
  /** Line of the assembly that came off whole, and that this came out of when it was opened. */
  @IsOptional() @IsUUID() inside?: string;
  /** Fasteners of a joint: the places that they came out of, from 0. */
  @IsOptional() @Ref() joint?: string;
  @IsOptional()
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(120)
  @ArrayUnique()
  @IsInt({ each: true })
  @Min(0, { each: true })
  places?: number[];
  /** The photo on which it was shown where each of them was. */
  @IsOptional() @IsUUID() photo?: string;
  @IsOptional()
  @RowsOf(() => Spot, 120, 1)
  spots?: Spot[];
}

declare module '../entries/kept.js' {
  interface Payloads {
    'came-off': CameOffPayload;
  }
}

/** Whether it is kept picks the way that it comes off: that is asked before it is pulled. */
const keepOrSpoil: Rule<'came-off'> = ({ step: ref }, held) => {
  const step = find(held.sheet.steps, ref ?? undefined);
  const part = step?.letsGo && keptOrNot(held.sheet, step, held.state().intents);
  return (
    part &&
    wrong({
      field: 'step',
      given: ref ?? '',
      allowed: `takes the ${part.name} off its seat: say first whether it is kept or may be spoilt`,
    })
  );
};

export const cameOff: Kind<'came-off'> = defineKind({
  id: 'came-off',
  version: 1,
  payload: CameOffPayload,
  points: { part: 'parts', joint: 'joints' },
  binds: {
    inside: { to: ['came-off'], allowed: 'is no line of this job’s ledger' },
    photo: { to: ['photo'], allowed: 'is no photo of this job' },
  },
  act: true,
  needs: [keepOrSpoil],
  check: ({ payload }, sheet) => placesWrong(payload, find(sheet.joints, payload.joint)),
  words: ({ payload }) => joined(`${payload.count} × ${payload.name}`, ...lineDetails(payload)),
});

function placesWrong({ places, count, photo, spots }: CameOffPayload, joint: Joint | undefined): readonly Wrong[] {
  if ((photo === undefined) !== (spots === undefined))
    return [{ field: 'payload.spots', allowed: 'goes with the photo that it is on, and the photo with it' }];
  const tooMany = spots && spots.length !== count ? [countWrong('spots', spots.length, count)] : [];
  if (!places) return tooMany;
  if (!joint) return [...tooMany, { field: 'payload.joint', allowed: 'is missing; places are those of a joint' }];
  if (places.length !== count) return [...tooMany, countWrong('places', places.length, count)];
  const beyond = places.some((place) => place >= joint.count);
  return beyond ? [...tooMany, placeWrong('places', joint, places.join(', '))] : tooMany;
}

function countWrong(field: string, given: number, count: number): Wrong {
  return { field: `payload.${field}`, allowed: `must be as many as came off: ${count}`, given: String(given) };
}
