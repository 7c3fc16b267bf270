import { PartOf } from '@jubb/sheet/given';
import { find } from '@jubb/sheet';
import { IsInt, IsOptional, Min } from 'class-validator';
import { defineKind, type Kind } from './define-kind.js';
import { Ref, Words } from './fields.js';

/** Who agreed to a way that departs from the maker. */
export class Agreed {
  @Words(100) foreman: string;
  /** What the customer said. */
  @Words(300) customer: string;
}

/** Which way was gone, where a step offers several. */
export class WayPayload {
  @Ref() way: string;
  @IsOptional() @PartOf(() => Agreed) agreed?: Agreed;
  /** Number of the job that left the unit so; none where somebody picked it on this one. */
  @IsOptional() @IsInt() @Min(1) left?: number;
}

declare module '../entries/kept.js' {
  interface Payloads {
    way: WayPayload;
  }
}

export const way: Kind<'way'> = defineKind({
  id: 'way',
  version: 1,
  payload: WayPayload,
  check({ payload, step }, sheet) {
    const known = find(find(sheet.steps, step ?? undefined)?.ways ?? [], payload.way);
    if (!known?.departs || payload.agreed) return [];
    const allowed = 'is missing: this way departs from the maker, and needs the word of foreman and customer';
    return [{ field: 'payload.agreed', allowed, given: payload.way }];
  },
  words({ payload: { way: ref, agreed, left }, step }, sheet) {
    const before = left === undefined ? '' : `, as job ${left} left the unit`;
    const consent = agreed ? `; departs from the maker: ${agreed.foreman} agrees, the customer: ${agreed.customer}` : '';
    return `Way: ${find(find(sheet.steps, step ?? '')?.ways ?? [], ref)?.name ?? ref}${before}${consent}`;
  },
  changes: ['sheet'],
  // A way that departs is kept only with who agreed to it.
  report: [{ section: 'departs', when: ({ payload }) => payload.agreed !== undefined }],
});
