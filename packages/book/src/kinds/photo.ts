import { IsInt, IsOptional, IsUUID, Max, Min } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';
import { FileRef, Words } from './fields.js';

/** A picture, and what it is of: an entry that it stands beside, or words. */
export class PhotoPayload {
  @FileRef() file: string;
  @IsInt() @Min(1) @Max(10_000) width: number;
  @IsInt() @Min(1) @Max(10_000) height: number;
  @IsOptional() @Words(300) words?: string;
  @IsOptional() @IsUUID() of?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    photo: PhotoPayload;
  }
}

export const photo: Kind<'photo'> = defineKind({
  id: 'photo',
  version: 1,
  payload: PhotoPayload,
  words: ({ payload: { words } }) => `Photo${words ? `: ${words}` : ''}`,
});
