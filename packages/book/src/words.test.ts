import { book, demoSheet } from './book.test-kit.js';
import type { EntryKind } from './entries/kept.js';
import { entryWords } from './kinds/registry.js';
import { expect, test } from '@jest/globals';

const axle = demoSheet('ostrel-d44-drive-axle');
const shaft = demoSheet('ostrel-ps2-propeller-shaft');

/** One entry as the book of the axle says it. */
function words(kind: EntryKind, payload: object, step?: string, sheet = axle): string {
  return entryWords(book(sheet, { kind, payload, ...(step ? { step } : {}) })[0]!, sheet);
}
const PULL = { wrenchLength: 450, adapterLength: 0, adapterAngle: 0, result: 'clicked' };

test.each<readonly [EntryKind, object, string]>([
  ['finding', { text: 'Oil at the nose', place: 'front', sort: 'damage' }, 'Damage: Oil at the nose, front'],
  ['finding', { text: 'all round', nothing: true }, 'Looked over: all round'],
  [
    'came-off',
    { name: 'Cover screws', count: 6, size: 'M8 x 25', place: 'top', tray: '3', mark: 'dot', condition: 'rusty' },
    '6 × Cover screws, M8 x 25, from top, tray 3, marked: dot, looks rusty',
  ],
  ['mark', { what: 'Flange', mark: 'paint line', with: 'Bram' }, 'Marked: Flange, paint line, with Bram'],
  ['wait', { what: 'sealant to skin', seconds: 600 }, 'Clock: sealant to skin, 10 min'],
  ['wait', { what: 'paint', seconds: 7200 }, 'Clock: paint, 2 h'],
  ['went-in', { line: 'x', name: 'Carrier', count: 1 }, '1 × Carrier in again'],
  ['caution-read', { caution: 'no-such' }, 'Caution read: no-such'],
  [
    'decision',
    { part: 'cover', fate: 'renew', quantity: 1, reason: 'bent', cause: { sort: 'found', words: 'a jack' } },
    '1 × Cover: renew, bent, cause found: a jack',
  ],
  ['counted', { name: 'Cover screws', count: 9 }, '9 × Cover screws on the bench'],
  ['answered', { quote: 2, answer: 'yes', words: 'but hurry' }, 'Quote 2, the customer: yes, but hurry'],
  ['nut', { setting: 's', act: 'seated', angle: -40, torque: 50 }, 'Nut seated at 50 N·m, backed off 40°'],
  ['nut', { setting: 's', act: 'turned', angle: 30 }, 'Nut tightened 30° and locked'],
  ['nut', { setting: 's', act: 'turned', angle: -30 }, 'Nut loosened 30° and locked'],
  ['nut', { setting: 's', act: 'turned', angle: 0 }, 'Nut left where it was and locked'],
  ['nut', { setting: 's', act: 'clicked', angle: 0 }, 'Bolt pulled until it clicked'],
  ['nut', { setting: 's', act: 'lined-up', angle: 0 }, 'Set to its mark again'],
  ['nut', { setting: 's', act: 'locked', angle: 0 }, 'Locknut tight against it'],
  [
    'end-play',
    { setting: 'pinion-preload', moment: 'locked', readings: [1.2, 1.2], unit: 'N·m', bearings: 'used' },
    'Pinion preload, by rolling torque 1.2 N·m, with the nut locked: in (window of used bearings)',
  ],
  [
    'pattern',
    { setting: 'backlash', driveAlong: 'heel', driveUp: 'face', coastAlong: 'toe-ish', coastUp: 'centre' },
    'Contact pattern: drive at the heel, up at the face; coast a little to the toe: out',
  ],
  [
    'pattern',
    {
      setting: 'backlash',
      driveAlong: 'heel',
      driveUp: 'centre',
      coastAlong: 'heel',
      coastUp: 'centre',
      left: 'Oswin: gears go back used',
    },
    'Contact pattern: drive at the heel; coast at the heel: out, left so: Oswin: gears go back used',
  ],
  ['gear-moved', { setting: 'backlash', gear: 'pinion', by: -0.05, undone: [] }, 'Pinion 0.05 mm further out'],
  [
    'gear-moved',
    { setting: 'backlash', gear: 'ring', by: 0.1, undone: ['cap-screws'] },
    'Ring 0.1 mm to the pinion; undone for it: Bearing cap screws',
  ],
  [
    'fitted',
    { fit: 'head-bearing', by: 'heat', driver: 'tube 42', support: 'plate', temperature: 104, home: 'no feeler', note: 'late' },
    'Head bearing on the pinion: warmed and dropped, 104 °C, tube 42, on plate, home: no feeler, although late',
  ],
  [
    'fitted',
    { fit: 'head-bearing', by: 'press', driver: 'tube', force: 12000, home: 'note' },
    'Head bearing on the pinion: pressed, most 12 kN, tube, home: note',
  ],
  [
    'open-end',
    { what: 'Plug', place: 'rear', closes: 'a new ring', turns: -2.25 },
    'Open end: Plug, rear, 2¼ turns out; closed by a new ring',
  ],
  ['open-end', { what: 'Adjuster', closes: 'its lock wire', turns: 1 }, 'Open end: Adjuster, 1 turn in; closed by its lock wire'],
  ['clip', { sort: 'audio', seconds: 3.2, words: 'whine' }, 'Said, 3 s: whine'],
  ['moved', { what: 'Belt', how: 'aside', routing: 'over the pulley' }, 'Laid aside: Belt, over the pulley'],
  ['intent', { part: 'cover', intent: 'sacrifice' }, 'Cover: to be renewed, may be spoilt'],
  ['old-part', { name: 'cover', fate: 'scrap', compared: true }, 'Old cover: scrap, held against the new one'],
  [
    'old-seal-out',
    { seal: 'pinion-seal', whole: false, words: 'a bit left' },
    'Old Pinion seal 44 × 72 × 10: not all of it is out, a bit left',
  ],
  ['replacement-here', { seen: '4 new screws' }, 'The new one is here: 4 new screws'],
  [
    'replacement-here',
    { part: 'pinion-seal', count: 1, seen: 'out of stores, B3' },
    'New, in hand: 1 × Pinion seal 44 × 72 × 10, out of stores, B3',
  ],
  [
    'accepted',
    { setting: 'pinion-preload', why: 'no finer tool here' },
    'Pinion preload, by rolling torque: unsure, and accepted so: no finer tool here',
  ],
  ['came-out', { name: 'Gear oil', litres: 2.1, colour: 'dark', metal: 'flakes' }, 'Came out: Gear oil, 2.1 L, dark, metal: flakes'],
  ['hold', { reason: 'parts', words: 'seal from Oswin' }, 'On hold for parts: seal from Oswin'],
  ['hold-off', {}, 'Taken up again'],
  [
    'owed',
    { what: 'Boots', due: '2027-03-01', hours: 500, told: 'in spring' },
    'Owed: Boots, by 1 Mar 2027 or at 500 h; the customer: in spring',
  ],
  ['owed-settled', { owed: 'x', how: 'dropped', reason: 'sold' }, 'Owed no more: sold'],
  ['pinned', { revision: 3 }, 'Goes on by revision 3 of the sheet'],
  ['stage', { stage: 'build' }, 'On to Build'],
  ['fluid', { fluid: 'axle-oil', amount: 0, unit: 'L' }, 'Axle oil: filled until it showed'],
  ['fluid', { fluid: 'axle-oil', amount: 1.9, unit: 'L' }, 'Axle oil: 1.9 L'],
  ['seal-fitted', { seal: 'pinion-seal', depths: [0.2, 0.4], unit: 'mm' }, 'Pinion seal 44 × 72 × 10 fitted, depth 0.2 mm to 0.4 mm: in'],
  ['seal-fitted', { seal: 'cover-joint', depths: [], unit: 'mm' }, 'Cover fitted'],
  ['reading', { limit: 'pinion-play', readings: [0.05, 0.05, 0.05], unit: 'mm' }, 'Pinion end play as found 0.05 mm (mean of 3): out'],
  ['look', { limit: 'teeth', look: 'chip', note: 'one tooth' }, 'Ring gear and pinion teeth: chip, one tooth'],
  ['photo', { file: 'f', width: 4, height: 3, words: 'the nose' }, 'Photo: the nose'],
  ['photo', { file: 'f', width: 4, height: 3 }, 'Photo'],
  ['clip', { sort: 'video', seconds: 7.6, words: 'knock' }, 'Clip, 8 s: knock'],
  ['note', { text: 'ask Oswin' }, 'ask Oswin'],
  ['next-time', { text: 'longer screws' }, 'Next time: longer screws'],
  ['strike', { reason: 'wrong line' }, 'Struck: wrong line'],
  ['wait-over', { wait: 'x' }, 'The wait is over'],
  ['mark-met', { mark: 'x' }, 'Mark met'],
  ['put-back', { moved: 'x' }, 'Back where it was'],
  ['open-end-closed', { opened: 'x' }, 'Open end closed'],
  ['value-taken', { list: 'joints', line: 'no-such' }, 'Used as it stands: no-such, only somebody’s word'],
  ['sign', { name: 'O. Tarrell' }, 'Signed: O. Tarrell'],
  ['handed-over', { receivedBy: 'Ragna', cautionsTold: true }, 'Handed over to Ragna'],
  ['owed-settled', { owed: 'x', how: 'done' }, 'Owed no more: done'],
])('%s %j is said as %s', (kind, payload, said) => {
  expect(words(kind, payload)).toBe(said);
});

test('a way that departs from the maker says who agreed', () => {
  const agreed = { foreman: 'Oswin', customer: 'as cheap as can be' };
  expect(words('way', { way: 'press', agreed }, 'head-bearing-on-with-its-shim')).toBe(
    'Way: Press; departs from the maker: Oswin agrees, the customer: as cheap as can be',
  );
});

test('what was worked out is said by what it is about', () => {
  const input = { shaft: 40.02, bore: 40, wanted: 'figures', from: 0.004, to: 0.03 };
  expect(words('worked', { working: 'fit.measured', input, fit: 'head-bearing' })).toBe(
    'Head bearing on the pinion: interference 0.02 mm: in',
  );
  expect(words('worked', { working: 'fit.measured', input })).toBe('Measured shaft and bore: is the fit what it should be?: in');
});

test.each([
  [{ pass: 1, place: 0, torque: 22 }, 'pass 1, number 1: 22 N·m, wrench at 22 N·m, clicked'],
  [{ pass: 2, place: 2, torque: 0 }, 'pass 2, number 2: turn on 45°, clicked'],
  [
    { pass: 1, place: 0, torque: 0, note: 'the tube is in the way' },
    'pass 1, number 1: by hand, unmeasured, clicked (the tube is in the way)',
  ],
  [{ pass: 1, place: 0, torque: 22, adapterLength: 55 }, 'pass 1, number 1: 22 N·m, wrench at 19.6 N·m, clicked'],
  [{ pass: 1, place: 0, torque: 22, sight: 'turns too far' }, 'wrench at 22 N·m, its curve showed: turns too far, clicked'],
])('a pull %j: %s', (pull, said) => {
  expect(words('pull', { joint: 'flange-front', ...PULL, ...pull }, undefined, shaft)).toContain(said);
});
