import { BENCH_KINDS, type BenchKind } from '@jubb/sheet';
import { RowsOf, TextLine, Version } from '@jubb/sheet/given';
import 'reflect-metadata';
import { ArrayMaxSize, IsArray, IsIn, IsOptional, IsUUID } from 'class-validator';
import { ClosedDayBody, WeekdayBody } from './shop.js';

/** A bench, or a machine that a step needs. */
export class BenchBody {
  @TextLine('what is it called?', 60) name: string;
  @IsIn(BENCH_KINDS, { message: 'is missing: what is it?' }) kind: BenchKind;
  /** Who may use it; nobody named: everybody. */
  @IsArray() @ArrayMaxSize(100) @IsUUID(undefined, { each: true, message: 'must be people who work here' }) who: string[];
  /** Monday first; none where it can be used whenever the shop is open. */
  @RowsOf(() => WeekdayBody, 7)
  week: WeekdayBody[];
  @RowsOf(() => ClosedDayBody, 100)
  closed: ClosedDayBody[];
  /** Why it is out of use; none where it is not. */
  @IsOptional() @TextLine('why is it out of use?', 200) out?: string;
}

export class BenchChangeBody extends BenchBody {
  @Version() version: number;
}

/** Where the unit of a job stands; nowhere of them without a bench. */
export class StandBody {
  @IsOptional() @IsUUID() benchId?: string | null;
}
