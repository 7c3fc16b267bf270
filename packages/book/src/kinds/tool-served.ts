import { IsIn, IsOptional, IsUUID } from 'class-validator';
import { joined } from '../words.js';
import { BENCH } from './roles.js';
import { defineKind, type Kind } from './define-kind.js';
import { Words } from './fields.js';

export const SERVED = ['served', 'did not serve'] as const;

/** A tool that was made on a job was used on another one. */
export class ToolServedPayload {
  /** The entry of the job that it was made on. */
  @IsUUID() tool: string;
  @Words(100) name: string;
  @IsIn(SERVED) how: (typeof SERVED)[number];
  @IsOptional() @Words(300) why?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'tool-served': ToolServedPayload;
  }
}

export const toolServed: Kind<'tool-served'> = defineKind({
  id: 'tool-served',
  version: 1,
  payload: ToolServedPayload,
  who: BENCH,
  outside: 'made-tool',
  words: ({ payload: { name, how, why } }) => joined(`${name} ${how}`, why),
});
