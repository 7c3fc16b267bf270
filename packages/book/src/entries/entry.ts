import 'reflect-metadata';
import { Instant, RowsOf } from '@jubb/sheet/given';
import { IsIn, IsInt, IsObject, IsOptional, IsString, IsUUID, Matches, Max, MaxLength, Min } from 'class-validator';
import { ENTRY_KINDS } from '../kinds/registry.js';
import type { EntryKind } from './kept.js';

/** An entry as a client posts it. */
export class NewEntry {
  /** Made by the client, UUID version 7: posting it twice keeps it once. */
  @IsUUID('7') id: string;
  @IsIn(ENTRY_KINDS) kind: EntryKind;
  /** In which version of its kind the payload is; 1 where nothing is said. */
  @IsOptional() @IsInt() @Min(1) @Max(1000) version?: number;
  @IsObject() payload: object;
  @IsOptional() @IsString() @MaxLength(80) @Matches(/^[a-z0-9-]+$/u) step?: string;
  @IsOptional() @IsUUID() toolId?: string;
  @IsOptional() @IsUUID() strikes?: string;
  /** The client's clock when it was recorded. */
  @Instant() takenAt: string;
}

export class PostEntries {
  @RowsOf(() => NewEntry, 100, 1)
  entries: NewEntry[];
  /** Who made them, when it is not who is at the tablet now: somebody who logged in there before. */
  @IsOptional() @IsUUID() personId?: string;
}
