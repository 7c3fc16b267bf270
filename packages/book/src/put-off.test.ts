import { describe, expect, test } from '@jest/globals';
import { scopeSheet } from '@jubb/sheet';
import { book, demoSheet, type BookLine } from './book.test-kit.js';
import { checkEntry } from './entries/check.js';
import type { NewEntry } from './entries/entry.js';
import { jobState, stopsSigning } from './state.js';
import { isBefore, waitsBegun } from './waits.js';

const whole = { tasks: ['whole-end'], sides: [], place: 'on the bench' as const, picks: [], identified: [], partsFirst: [] };
const sheet = scopeSheet(demoSheet('tindlebrook-sk2-steered-end'), whole).file;
const { coat } = sheet.steps.find(({ ref }) => ref === 'colour-on')!;
const on: BookLine = { kind: 'tick', payload: { masked: coat!.masked.length }, step: 'colour-on' };
const later: BookLine = { kind: 'tick', payload: { later: 'in spring' }, step: 'colour-on' };
const owed: BookLine = { kind: 'owed', payload: { what: 'Colour on', told: 'in spring' }, step: 'colour-on' };

describe('a coat', () => {
  const refused = (payload: object, step = 'colour-on'): readonly string[] => {
    const given = {
      id: '01935f3a-0000-7000-8000-000000000002',
      kind: 'tick',
      payload,
      step,
      takenAt: '2026-11-25T09:00:00.000Z',
    } as unknown as NewEntry;
    const found = checkEntry(given, { sheet, tools: new Map(), role: 'mechanic', now: Date.parse('2026-11-25T09:00:10Z') });
    return found?.errors.map(({ field, allowed }) => `${field} ${allowed}`) ?? [];
  };

  test('goes on once each thing that stays bare is masked, or is put off; nothing else is put off', () => {
    expect(refused({ masked: 4 })).toEqual([]);
    expect(refused({ masked: 3 })).toEqual([expect.stringMatching(/^payload\.masked must be 4: .*number plate/u)]);
    expect(refused({})).toHaveLength(1);
    expect(refused({ later: 'in spring' })).toEqual([]);
    expect(refused({ later: 'in spring' }, 'wheel-on')).toEqual(['payload.later is said of a coat that is put off']);
    expect(refused({}, 'wheel-on')).toEqual([]);
  });

  test('dries before what comes after it; what is put off does not', () => {
    const state = (...lines: readonly BookLine[]): ReturnType<typeof jobState> => jobState(sheet, book(sheet, ...lines));
    const [begun] = waitsBegun(state(), () => state(on));
    expect(begun).toMatchObject({ step: 'colour-on', payload: { what: 'the colour dries', seconds: 4 * 3600 } });
    const [clock] = state(on, begun!).clocks;
    const sign = sheet.steps.find(({ record }) => record.kind === 'sign')!;
    expect(isBefore(state(on, begun!), clock!, sign)).toBe(true);
    expect(waitsBegun(state(), () => state(later))).toEqual([]);
  });

  test('that is put off is owed, or the foreman does not sign', () => {
    const stops = (...lines: readonly BookLine[]): readonly string[] => stopsSigning(jobState(sheet, book(sheet, ...lines)));
    const words = 'Put off, and not kept as owed: Colour on';
    expect(stops(later)).toContain(words);
    expect(stops(later, owed)).not.toContain(words);
    expect(stops(on)).not.toContain(words);
    expect(jobState(sheet, book(sheet, later, owed)).owed.map(({ payload }) => payload.what)).toEqual(['Colour on']);
  });
});
