import { expect, test } from '@jest/globals';
import { isKind, type AnyKeptEntry } from '@jubb/book';
import { find } from '@jubb/sheet';
import { emptySheet, readSheetFile, reviewSheet, writeYaml } from '@jubb/sheet/editing';
import { sheetIssues } from '@jubb/sheet/file';
import { checkByPlay } from './check.js';
import { playThrough } from './play.js';
import { freeLines, sheetFromStrip } from './sheet-from-strip.js';

const begun = emptySheet({ key: 'ostrel-ra3', make: 'Ostrel', model: 'RA3', machine: 'Mower' }, 'right-angle gearbox');
const entry = (kind: string, payload: object, at: number): AnyKeptEntry =>
  ({
    id: `e${at}`,
    seq: at,
    kind,
    payload,
    step: null,
    strikes: null,
    personId: 'ilka',
    takenAt: '2026-11-29T08:00:00Z',
    working: null,
  }) as unknown as AnyKeptEntry;
const off = (name: string, count: number, more: object = {}): object => ({ name, count, ...more });
const STRIP = [
  off('cap screw 8.8', 6, { size: 'M8 x 25', place: 'input cap' }),
  off('Input cap', 1),
  off('O-ring', 1, { size: '62 x 2.5' }),
  off('Shim', 3, { mark: 'tied to the cap' }),
  off('circlip 35', 1, { direction: 'bevel out' }),
  off('bearing 30207', 1, { direction: 'small end in' }),
  off('left-hand nut', 1, { size: 'M24x1.5' }),
  off('Input shaft', 1, { mark: 'paint line to the wheel', condition: 'blue at the seat' }),
  off('cover screw', 4, { size: 'M6 x 16' }),
  off('Cover', 1),
];
const live = STRIP.map((payload, at) => entry('came-off', payload, at));
const draft = sheetFromStrip(begun, 'ostrel-ra3-stripped', live);

test('a strip of free lines is a draft that the checker has nothing to stop in, and that plays to the end', () => {
  expect(sheetIssues(draft as unknown as Record<string, unknown>)).toEqual([]);
  expect(reviewSheet(draft).findings.filter(({ severity }) => severity === 'stop')).toEqual([]);
  expect(checkByPlay(draft).findings).toEqual([]);
  const read = readSheetFile(writeYaml(draft, undefined));
  expect(read.ok && read.sheet.title).toBe('Ostrel RA3');
});

test('parts and counts, what is renewed, the order off and back on', () => {
  expect(find(draft.parts, 'cap-screw-8-8-m8-x-25')).toMatchObject({ quantity: 6, policy: 'reuse' });
  expect(draft.parts.filter(({ policy }) => policy === 'renew').map(({ name }) => name)).toEqual(['O-ring 62 x 2.5', 'circlip 35']);
  expect(find(draft.parts, 'bearing-30207')?.designation).toBe('30207');
  const titles = (stage: string): readonly string[] => draft.steps.filter((step) => step.stage === stage).map(({ title }) => title);
  expect(titles('strip').slice(0, 3)).toEqual(['Before a nut is touched', 'Input cap off', 'O-ring 62 x 2.5 off']);
  expect(titles('build')).toEqual([
    'Count what goes back',
    'Cover in',
    'cover screw M6 x 16 tight',
    'Input shaft in',
    'left-hand nut M24x1.5 tight',
    'bearing 30207 in',
    'circlip 35 in',
    'Shim in',
    'O-ring 62 x 2.5 in',
    'Input cap in',
    'cap screw 8.8 M8 x 25 tight',
  ]);
});

test('a torque is reckoned by class, surface and thread; a screw with no mark is the lowest class', () => {
  const joint = (ref: string) => find(draft.joints, ref)!;
  expect(joint('cap-screw-8-8-m8-x-25')).toMatchObject({ thread: 'M8', propertyClass: '8.8', hand: 'right', count: 6 });
  expect(joint('left-hand-nut-m24x1-5').hand).toBe('left');
  const cover = joint('cover-screw-m6-x-16');
  expect(cover).toMatchObject({ propertyClass: 'unmarked', torque: { trust: 'calculated', source: 'torque.no-spec' } });
  // An M6 of 8.8, oiled, is 8.6 N·m at the aim of that working; one with no mark takes a third of it.
  expect(Number.parseFloat(cover.torque!.figure)).toBeLessThan(4);
  expect(Number.parseFloat(joint('cap-screw-8-8-m8-x-25').torque!.figure)).toBeCloseTo(21, 0);
});

test('marks, directions and what is seen home are asked by name on the next job', () => {
  const { entries } = playThrough(draft);
  const said = entries.filter(isKind('way-round')).map(({ payload }) => payload.lies);
  expect(said).toEqual(['small end in', 'bevel out']);
  expect(entries.filter(isKind('mark-met'))).toHaveLength(2);
  expect(entries.filter(isKind('seated')).map(({ payload }) => payload.fastening)).toEqual(['circlip-35']);
});

test('what the sheet knew already is no free line, and two alike are one part', () => {
  const known = entry('came-off', off('Cover', 1, { part: 'cover' }), 20);
  expect(freeLines([...live, known])).toHaveLength(STRIP.length);
  const more = [...live, entry('came-off', off('Shim', 2), 21)];
  expect(find(sheetFromStrip(begun, 'x', more).parts, 'shim')?.quantity).toBe(5);
});
