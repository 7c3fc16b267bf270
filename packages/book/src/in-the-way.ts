import { PartOf } from '@jubb/sheet/given';
import 'reflect-metadata';
import { MOVED_HOW, type MovedHow } from '@jubb/sheet';
import { IsIn, IsNumber, IsOptional, Max, Min } from 'class-validator';
import { Pieces, Words } from './kinds/fields.js';

/** What taking something out of the way upsets. */
export const UPSETS = ['level', 'air', 'tension', 'alignment'] as const;
export type Upset = (typeof UPSETS)[number];

/** What each is read by: a level's height, the fluid let out until no air comes, a belt's give or pull, an angle or a gap. */
export const UPSET_READ_AS = ['length', 'volume', 'force', 'angle', 'pressure'] as const;
export type UpsetReadAs = (typeof UPSET_READ_AS)[number];

const A_FIGURE = { message: 'must be a figure with its unit, such as 12 mm' };
const A_TORQUE = { message: 'must be a torque, 0.1 to 5000 N·m' };

/** How each is read where nobody says otherwise: the height of a level, fluid let out, how far a belt gives, a gap. */
export const USUALLY_READ_AS: Readonly<Record<Upset, UpsetReadAs>> = {
  level: 'length',
  air: 'volume',
  tension: 'length',
  alignment: 'length',
};

/** What must be read again once the thing is back. */
export class Consequence {
  @IsIn(UPSETS) upsets: Upset;
  /** What is read, and where: "coolant, cold, over the mark". */
  @Words(200) what: string;
  @IsIn(UPSET_READ_AS) readAs: UpsetReadAs;
  /** Between which figures it is right, in base units (mm, L, N, degrees, kPa); either may be left open. */
  @IsOptional() @IsNumber({}, A_FIGURE) @Min(-1e6) @Max(1e6) from?: number;
  @IsOptional() @IsNumber({}, A_FIGURE) @Min(-1e6) @Max(1e6) to?: number;
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
  @IsOptional() @IsNumber({}, A_TORQUE) @Min(0.1, A_TORQUE) @Max(5000, A_TORQUE) torque?: number;
  /** What keeps the dirt out meanwhile. */
  @IsOptional() @Words(100) plug?: string;
  @IsOptional() @PartOf(() => Consequence) makes?: Consequence;
}

/** "6 × M8 × 25"; nothing where nobody counted. */
export function screwWords({ screws, size }: Pick<InTheWay, 'screws' | 'size'>): string | undefined {
  return screws === undefined ? undefined : `${screws} × ${size ?? (screws === 1 ? 'screw' : 'screws')}`;
}
