import { IsInt, IsOptional, Max, Min } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';
import { Ref, Words } from './fields.js';

/** How many of a part lie on the bench before the build, old and new together. */
export class CountedPayload {
  @IsOptional() @Ref() part?: string;
  @Words(200) name: string;
  @IsInt({ message: 'must be a whole number' })
  @Min(0, { message: 'must not be under 0' })
  @Max(1000, { message: 'must be at most 1000' })
  count: number;
}

declare module '../entries/kept.js' {
  interface Payloads {
    counted: CountedPayload;
  }
}

export const counted: Kind<'counted'> = defineKind({
  id: 'counted',
  version: 1,
  payload: CountedPayload,
  points: { part: 'parts' },
  words: ({ payload }) => `${payload.count} × ${payload.name} on the bench`,
});
