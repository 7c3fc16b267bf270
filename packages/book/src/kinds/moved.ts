import { MOVED_HOW, type MovedHow } from '@jubb/sheet';
import { Type } from 'class-transformer';
import { IsIn, IsNumber, IsOptional, Max, Min, ValidateNested } from 'class-validator';
import { capital, joined, MOVED_WORDS } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Pieces, Words } from './fields.js';

/** What taking something out of the way upsets. */
export const UPSETS = ['level', 'air', 'tension', 'alignment'] as const;
export type Upset = (typeof UPSETS)[number];

/** What each is read by: a level's height, the fluid let out until no air comes, a belt's give or pull, an angle or a gap. */
export const UPSET_READ_AS = ['length', 'volume', 'force', 'angle', 'pressure'] as const;
export type UpsetReadAs = (typeof UPSET_READ_AS)[number];

/** What must be read again once the thing is back. */
export class Consequence {
  @IsIn(UPSETS) upsets: Upset;
  /** What is read, and where: "coolant, cold, over the mark". */
  @Words(200) what: string;
  @IsIn(UPSET_READ_AS) readAs: UpsetReadAs;
  /** Between which figures it is right, in base units (mm, L, N, degrees, kPa); either may be left open. */
  @IsOptional() @IsNumber() @Min(-1e6) @Max(1e6) from?: number;
  @IsOptional() @IsNumber() @Min(-1e6) @Max(1e6) to?: number;
}

/** Something that is in the way of a unit. */
export class InTheWay {
  @Words(200) what: string;
  @IsIn(MOVED_HOW) how: MovedHow;
  /** How it runs, of a belt, a hose or a wire: over what, behind what. */
  @IsOptional() @Words(300) routing?: string;
  /** Screws or nuts that hold it, of which size, and their torque in N·m. */
  @IsOptional() @Pieces() screws?: number;
  @IsOptional() @Words(60) size?: string;
  @IsOptional() @IsNumber() @Min(0.1) @Max(5000) torque?: number;
  /** What keeps the dirt out meanwhile. */
  @IsOptional() @Words(100) plug?: string;
  @IsOptional() @ValidateNested() @Type(() => Consequence) makes?: Consequence;
}

/** Moved to get at the unit: it goes back where it was. */
export class MovedPayload extends InTheWay {}

declare module '../entries/kept.js' {
  interface Payloads {
    moved: MovedPayload;
  }
}

export const moved: Kind<'moved'> = defineKind({
  id: 'moved',
  version: 1,
  payload: MovedPayload,
  check: ({ payload: { makes } }) =>
    makes?.from !== undefined && makes.to !== undefined && makes.from > makes.to
      ? [{ field: 'payload.makes.to', given: String(makes.to), allowed: `must be at least ${makes.from}, where it begins` }]
      : [],
  words: ({ payload: { how, what, routing, ...held } }) => joined(`${capital(MOVED_WORDS[how])}: ${what}`, screwWords(held), routing),
});

/** "6 × M8 × 25"; nothing where nobody counted. */
export function screwWords({ screws, size }: Pick<InTheWay, 'screws' | 'size'>): string | undefined {
  return screws === undefined ? undefined : `${screws} × ${size ?? (screws === 1 ? 'screw' : 'screws')}`;
}
