import { RowsOf } from '@jubb/sheet/given';
import { workings } from '@jubb/core';
import { find, partName } from '@jubb/sheet';
import { IsObject, IsOptional, IsUUID, Matches } from 'class-validator';
import { workOut } from '../measured/measured.js';
import { didWords } from '../runs/setting-run.js';
import { judged } from '../words.js';
import { defineKind, type Kind } from './define-kind.js';
import { Pieces, Ref } from './fields.js';

/** Pieces of a stock line that go in. */
export class Taken {
  @IsUUID() item: string;
  @Pieces() count: number;
}

/** A working that was used on the job: what went in is kept, the server works it out again and keeps the result. */
export class WorkedPayload {
  @Matches(/^[a-z]+\.[a-z0-9-]+$/u, { message: 'must be the id of a working' }) working: string;
  @IsObject() input: object;
  /** What it is about: a verdict of "out" proposes to renew it. */
  @IsOptional() @Ref() part?: string;
  /** The setting that is set by it, the fit that it is about, or the joint whose torque it is. */
  @IsOptional() @Ref() setting?: string;
  @IsOptional() @Ref() fit?: string;
  @IsOptional() @Ref() joint?: string;
  /** Shims out of stores that lie in at the setting from now on: all of the pack. */
  @IsOptional() @RowsOf(() => Taken, 20) taken?: Taken[];
}

declare module '../entries/kept.js' {
  interface Payloads {
    worked: WorkedPayload;
  }
}

export const worked: Kind<'worked'> = defineKind({
  id: 'worked',
  version: 1,
  payload: WorkedPayload,
  points: { part: 'parts', setting: 'settings', fit: 'fits', joint: 'joints' },
  check({ payload: { working, input } }) {
    const result = workOut(working, input);
    if (!('issues' in result)) return [];
    return result.issues.map(({ field, words, received }) => ({
      field: field === 'working' ? 'payload.working' : `payload.input.${field}`,
      allowed: words,
      ...(received === undefined ? {} : { given: received }),
    }));
  },
  takesStock: (payload) => 'taken' in payload,
  working({ working, input }) {
    const result = workOut(working, input);
    return 'used' in result ? result.used : null;
  },
  earlier: true,
  words(entry, sheet) {
    const { part: partRef, setting, joint, fit, working } = entry.payload;
    const output = entry.working?.output;
    const what = output?.['what'] ?? output?.['bad'] ?? output?.['settle'];
    const about =
      find(sheet.settings, setting)?.name ??
      find(sheet.joints, joint)?.name ??
      find(sheet.fits ?? [], fit)?.name ??
      (partRef === undefined ? '' : partName(sheet, partRef));
    if ([setting, joint, fit].some((ref) => ref !== undefined)) return `${about}: ${didWords(entry)}${judged(entry)}`;
    const title = workings.describe(working)?.title ?? working;
    return `${about === '' ? '' : `${about}, `}${title}${judged(entry)}${typeof what === 'string' ? `. ${what}` : ''}`;
  },
  // What set something stands with its setting.
  report: [{ section: 'setting' }, { section: 'worked', when: ({ payload }) => payload.setting === undefined }],
});
