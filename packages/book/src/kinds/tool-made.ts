import { IsNumber, IsOptional, Max, Min } from 'class-validator';
import { joined } from '../words.js';
import { BENCH } from './roles.js';
import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';

/** A tool that was made for a step: a puller, a stop, a jig, a socket turned down. Pictures of it are photos of this entry. */
export class ToolMadePayload {
  @Words(100) name: string;
  /** What it does, and how it is used. */
  @Words(300) use: string;
  /** Sizes by which it is made again: "tube 48 × 4, 120 long, end squared". */
  @IsOptional() @Words(300) sizes?: string;
  /** The most it was loaded with and held, kN. */
  @IsOptional() @IsNumber() @Min(0.01) @Max(5000) load?: number;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'tool-made': ToolMadePayload;
  }
}

export const toolMade: Kind<'tool-made'> = defineKind({
  id: 'tool-made',
  version: 1,
  payload: ToolMadePayload,
  who: BENCH,
  words: ({ payload: { name, use, sizes, load } }) =>
    joined(`Tool made: ${name}`, use, sizes, load === undefined ? undefined : `held ${load} kN`),
});
