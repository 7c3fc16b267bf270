import { expect, test } from '@jest/globals';
import type { SheetFile, Step } from '@jubb/sheet';
import { benchOpen, benchRefusal, benchTaken, benchesLacking, mayUse, type Bench } from './benches.js';
import { needsBench } from './entries/at-bench.js';
import type { ShopHours } from './hours.js';

const MIRA = { id: 'mira', name: 'Mira' };
const bench = (rest: Partial<Bench> = {}): Bench => ({
  ...{ id: 'b', name: 'Press, 20 t', kind: 'press', hours: null, who: [], out: null, version: 1, jobs: [] },
  ...rest,
});
const sheetOf = (step: Partial<Step>): SheetFile => ({ steps: [{ ref: 'out', ...step }] }) as unknown as SheetFile;
const way = (by?: string): object => ({ ref: `by-${by ?? 'other'}`, name: 'x', reason: 'x', ...(by ? { by } : {}) });
const pressed = sheetOf({ bench: 'press' });

test.each<[string, Bench[], RegExp | undefined]>([
  ['a shop that names no press', [bench({ kind: 'oven', who: [MIRA] })], undefined],
  ['a press for everybody', [bench()], undefined],
  ['a press for somebody else', [bench({ who: [MIRA] })], /^needs the press, which is not for everybody: Press, 20 t is used by Mira$/u],
  ['one for somebody else beside one for everybody', [bench({ who: [MIRA] }), bench({ name: 'Arbor press' })], undefined],
  ['one that is out of use', [bench({ out: 'ram leaks' })], /^needs the press, which is out of use: Press, 20 t, ram leaks$/u],
  ['an idle one for others beside one that is out of use', [bench({ out: 'ram leaks' }), bench({ who: [MIRA] })], /used by Mira$/u],
])('a step at the press with %s', (_, benches, refusal) => {
  const told = benchRefusal(pressed, 'out', benches, 'tom');
  if (refusal) expect(told).toMatch(refusal);
  else expect(told).toBeUndefined();
});

test('whoever is named may use it, and nobody else', () => {
  expect(mayUse(bench({ who: [MIRA] }), 'mira')).toBe(true);
  expect(mayUse(bench({ who: [MIRA] }), 'tom')).toBe(false);
  expect(benchRefusal(pressed, 'out', [bench({ who: [MIRA] })], 'mira')).toBeUndefined();
});

test('the way that is gone says which machine it takes: by hand none', () => {
  expect(benchTaken({ bench: 'press' })).toBe('press');
  expect(benchTaken({ bench: 'press' }, { by: 'heat' })).toBe('oven');
  expect(benchTaken({ bench: 'press' }, { by: 'hand' })).toBeUndefined();
  expect(benchTaken({ bench: 'oven' }, {})).toBe('oven');
  expect(benchTaken({ bench: 'in place' })).toBeUndefined();
  expect(benchTaken({})).toBeUndefined();
});

test.each<[string, Partial<Step>, boolean]>([
  ['at the press', { bench: 'press' }, true],
  ['in the unit’s machine', { bench: 'in place' }, false],
  ['nowhere named', {}, false],
  ['at the press or by hand', { bench: 'press', ways: [way('press'), way('hand')] as never }, false],
  ['at the press whichever way', { bench: 'press', ways: [way('press'), way('press')] as never }, true],
  ['at the press by two ways of which one does not say', { bench: 'press', ways: [way('press'), way()] as never }, false],
])('work %s', (_, step, needs) => {
  expect(needsBench({ kind: 'tick', step: 'out' }, sheetOf(step))).toBe(needs);
});

test('what is said or seen at a step takes no machine; what is done, pulled or read there does', () => {
  const does = (kind: Parameters<typeof needsBench>[0]['kind']): boolean => needsBench({ kind, step: 'out' }, pressed);
  expect((['note', 'photo', 'strike', 'hold', 'caution-read'] as const).filter(does)).toEqual([]);
  expect((['tick', 'came-off', 'let-go', 'fitted', 'pull', 'reading'] as const).filter((kind) => !does(kind))).toEqual([]);
  expect(needsBench({ kind: 'tick' }, pressed)).toBe(false);
});

test('what a sheet needs and the shop has not; a shop that names no bench is not asked', () => {
  expect(benchesLacking(pressed, [])).toEqual([]);
  expect(benchesLacking(pressed, [bench({ kind: 'oven' })])).toEqual(['press']);
  expect(benchesLacking(pressed, [bench({ out: 'ram leaks' })])).toEqual(['press']);
  expect(benchesLacking(pressed, [bench()])).toEqual([]);
});

const DAY = { from: '07:00', to: '16:30' };
const SHOP: ShopHours = { week: [DAY, DAY, DAY, DAY, DAY, null, null], closed: [{ day: '2027-12-27', why: 'stocktaking' }] };
const OWN: ShopHours = { week: [{ from: '08:00', to: '12:00' }, null, null, null, null, null, null], closed: [] };

// 2027-12-20 is a Monday (ISO 8601 calendar, by hand from 2027-01-01, a Friday).
test.each([
  ['as the shop', null, '2027-12-20', '07:00', { isOpen: true, until: '16:30' }],
  ['to the minute', null, '2027-12-20', '16:30', { isOpen: false, why: 'closed since 16:30', from: { day: '2027-12-21', clock: '07:00' } }],
  ['before it opens', null, '2027-12-20', '06:59', { isOpen: false, why: undefined, from: { day: '2027-12-20', clock: '07:00' } }],
  ['at the weekend', null, '2027-12-18', '09:00', { isOpen: false, why: 'Saturday', from: { day: '2027-12-20', clock: '07:00' } }],
  ['by its own hours', OWN, '2027-12-20', '07:30', { isOpen: false, why: undefined, from: { day: '2027-12-20', clock: '08:00' } }],
  [
    'by its own hours, past a day on which the shop is closed',
    OWN,
    '2027-12-21',
    '09:00',
    { isOpen: false, why: 'Tuesday', from: { day: '2028-01-03', clock: '08:00' } },
  ],
])('open %s', (_, hours, day, clock, told) => {
  expect(benchOpen({ hours }, SHOP, day, clock)).toEqual(told);
});

test('where nobody says when the shop is open, nothing is told of a bench', () => {
  expect(benchOpen({ hours: null }, null, '2027-12-20', '09:00')).toBeUndefined();
});
