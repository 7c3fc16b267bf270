import 'reflect-metadata';
import { RowsOf } from '@jubb/sheet/given';
import { WayInLine } from '@jubb/book';
import { IsInt, Min } from 'class-validator';

/** The short sheet of a machine as it is kept: all of its lines, in their order. */
export class WayInBody {
  /** That was read; 0 where there was none. */
  @IsInt() @Min(0) version: number;
  @RowsOf(() => WayInLine, 60)
  lines: WayInLine[];
}

/** How one gets at the units of a machine. */
export interface WayInView {
  readonly machine: { readonly id: string; readonly name: string; readonly serial: string };
  /** The units of it that are known here, by name. */
  readonly units: readonly string[];
  readonly lines: readonly WayInLine[];
  /** 0 where nobody kept one. */
  readonly version: number;
  readonly editedBy: string | null;
  readonly editedAt: string | null;
  /** Where this machine has none: of another machine of the same name. */
  readonly like: { readonly serial: string; readonly lines: readonly WayInLine[] } | null;
}
