import { find } from '@jubb/sheet';
import { IsOptional } from 'class-validator';
import { joined } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Ref, Words } from './fields.js';

export class LookPayload {
  @Ref() limit: string;
  @Ref() look: string;
  @IsOptional() @Words(1000) note?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    look: LookPayload;
  }
}

export const look: Kind<'look'> = defineKind({
  id: 'look',
  version: 1,
  payload: LookPayload,
  points: { limit: 'limits' },
  check({ payload }, sheet) {
    const limit = find(sheet.limits, payload.limit);
    if (!limit || find(limit.looks ?? [], payload.look)) return [];
    const looks = (limit.looks ?? []).map(({ ref }) => ref).join(', ');
    return [{ field: 'payload.look', allowed: `is not among the looks of "${limit.name}": ${looks}`, given: payload.look }];
  },
  words({ payload }, sheet) {
    const limit = find(sheet.limits, payload.limit);
    return joined(`${limit?.name ?? ''}: ${find(limit?.looks ?? [], payload.look)?.words ?? payload.look}`, payload.note);
  },
  report: [
    {
      section: 'measured',
      cells({ payload }, sheet) {
        const limit = find(sheet.limits, payload.limit);
        const seen = find(limit?.looks ?? [], payload.look);
        return [limit?.name ?? payload.limit, seen?.words ?? payload.look, '', seen?.verdict ?? ''];
      },
    },
  ],
});
