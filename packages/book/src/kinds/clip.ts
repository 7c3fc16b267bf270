import { LONGEST_CLIP_S } from '@jubb/sheet';
import { IsIn, IsNumber, Max, Min } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';
import { FileRef, Words } from './fields.js';

/** Something said, or seen and heard, for some seconds. */
export class ClipPayload {
  @FileRef() file: string;
  @IsIn(['audio', 'video']) sort: 'audio' | 'video';
  @IsNumber() @Min(0.1) @Max(LONGEST_CLIP_S + 1, { message: `must be at most ${LONGEST_CLIP_S} s` }) seconds: number;
  @Words(200) words: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    clip: ClipPayload;
  }
}

export const clip: Kind<'clip'> = defineKind({
  id: 'clip',
  version: 1,
  payload: ClipPayload,
  words: ({ payload: { sort, seconds, words } }) => `${sort === 'audio' ? 'Said' : 'Clip'}, ${Math.round(seconds)} s: ${words}`,
});
