import { scopeSheet, type SheetFile } from '@jubb/sheet';
import { book, demoSheet, type BookLine } from '../book.test-kit.js';
import type { JobView } from '../views.js';
import { jobReport, type ReportRow, type ReportSection } from './report.js';
import { describe, expect, test } from '@jest/globals';

const axle = scopeSheet(demoSheet('ostrel-d44-drive-axle'), { variant: 'd44-409' }).file;
const people = [
  { id: 'ilka', name: 'Ilka Varne', role: 'mechanic' },
  { id: 'oswin', name: 'Oswin Tarrell', role: 'foreman' },
];

function jobWith(lines: readonly BookLine[], strikes: Readonly<Record<number, string>> = {}, sheet: SheetFile = axle): JobView {
  const entries = book(sheet, ...lines).map((entry, index) =>
    strikes[index] === undefined ? entry : { ...entry, strikes: strikes[index] },
  );
  return {
    id: 'job',
    number: 417,
    customer: { id: 'c', name: 'Gelmarn Lift and Piste' },
    machine: { id: 'm', name: 'Truck', serial: 'T-1' },
    unit: { id: 'u', name: 'Rear axle', serial: 'A-1' },
    complaint: 'whines under load',
    bookedAt: '2026-11-20T08:00:00Z',
    scope: { variant: 'd44-409', tasks: ['whole-axle'] },
    sheet: { title: sheet.title, revision: 3, file: sheet, notOpened: ['tubes'] },
    people,
    tools: [],
    entries: entries.map((entry) => ({ ...entry, hash: `hash of ${entry.id}` })),
  } as unknown as JobView;
}
const TIMES = { at: (iso: string) => iso.slice(11, 16), day: (iso: string) => iso.slice(0, 10) };

function sections(lines: readonly BookLine[], strikes?: Readonly<Record<number, string>>): ReadonlyMap<string, ReportSection> {
  return new Map(jobReport(jobWith(lines, strikes), TIMES).sections.map((section) => [section.title, section]));
}
function rowsOf(section: string, ...lines: readonly BookLine[]): readonly ReportRow[] {
  return sections(lines).get(section)?.table?.rows ?? [];
}
function cellsOf(section: string, ...lines: readonly BookLine[]): readonly (readonly string[])[] {
  return rowsOf(section, ...lines).map(({ cells }) => cells);
}
const BY = ['Ilka Varne', '09:00'];

test('whose it is, what it is, what it was worked to', () => {
  const { title, facts, hash } = jobReport(jobWith([{ kind: 'tick', payload: {}, step: 'wash-and-dry' }]), TIMES);
  expect(title).toBe('Job 417: Rear axle');
  expect(hash).toBe('hash of entry 0');
  expect(Object.fromEntries(facts)).toEqual({
    Customer: 'Gelmarn Lift and Piste',
    Machine: 'Truck, T-1',
    Unit: 'Rear axle, A-1',
    Complaint: 'whines under load',
    'Booked in': '2026-11-20',
    'Worked to': 'Ostrel D44 rear drive axle, sheet revision 3',
    'Which one': 'D44, 4.091 (as it was booked in)',
    Done: 'Whole axle',
    'Not opened': 'tubes',
  });
});

test('what nothing was said of is left out; what the driver is told stands first', () => {
  const [first, ...others] = jobReport(jobWith([]), TIMES).sections;
  expect(first).toMatchObject({ title: 'Tell the driver', care: true, text: axle.customerNotes.map(({ text }) => text) });
  expect(others).toEqual([]);
});

describe('by what was kept', () => {
  test('as found, with what came out', () => {
    expect(
      cellsOf(
        'As found',
        { kind: 'finding', payload: { text: 'oil at the nose', sort: 'damage' } },
        { kind: 'came-out', payload: { name: 'Axle oil', litres: 1.5, metal: 'flakes' } },
      ),
    ).toEqual([
      ['Damage: oil at the nose', ...BY],
      ['Came out: Axle oil, 1.5 L, metal: flakes', ...BY],
    ]);
    expect(sections([{ kind: 'finding', payload: { text: 'oil' } }]).get('As found')?.table?.head[0]).toBe('Seen');
  });

  test('a reading with every repeat and its window, a look with its words', () => {
    expect(
      cellsOf(
        'Measured',
        { kind: 'reading', payload: { limit: 'pinion-play', readings: [0.05, 0.06, 0.055], unit: 'mm' } },
        { kind: 'look', payload: { limit: 'teeth', look: 'chip' } },
      ),
    ).toEqual([
      ['Pinion end play as found', '0.055 mm, mean of 3: 0.05 mm, 0.06 mm, 0.055 mm', '0 to 0.02 mm', 'out', '', ...BY],
      ['Ring gear and pinion teeth', 'chip', '', 'out', '', ...BY],
    ]);
  });

  test('parts with why and by what they failed; old parts by where they went', () => {
    const decided: BookLine = {
      kind: 'decision',
      payload: { part: 'ring-gear', fate: 'renew', quantity: 1, reason: 'chipped', cause: { sort: 'found', words: 'a stone' } },
    };
    expect(cellsOf('Parts', decided)).toEqual([['Ring gear', 'OD4-220', '1', 'renew', 'chipped; cause found: a stone']]);
    expect(cellsOf('Old parts', { kind: 'old-part', payload: { name: 'Ring gear', fate: 'return', compared: true } })).toEqual([
      ['Ring gear', 'given back', 'held against the new one'],
    ]);
  });

  test('seals and oil; a seal that has no depth is seated', () => {
    const fitted = { directionSeen: true, lubricated: true, unit: 'mm' };
    expect(
      cellsOf(
        'Seals and grease',
        { kind: 'seal-fitted', payload: { ...fitted, seal: 'pinion-seal', depths: [0.2, 0.3] } },
        { kind: 'seal-fitted', payload: { ...fitted, seal: 'cover-joint', depths: [] } },
        { kind: 'fluid', payload: { fluid: 'axle-oil', amount: 1.9, unit: 'L' } },
      ).map(([what, amount, verdict]) => [what, amount, verdict]),
    ).toEqual([
      ['Pinion seal 44 × 72 × 10, lip towards the gears, dust lip out', 'depth 0.2 mm to 0.3 mm', 'in'],
      ['Cover, bead inside the screw circle, round every hole', 'seated', ''],
      ['Axle oil, hypoid 90, GL-5', '1.9 L', ''],
    ]);
  });

  test('every pull by its number and its place, with what went wrong', () => {
    const pull = { joint: 'cap-screws', pass: 1, place: 2, torque: 42.5, result: 'trouble', note: 'turns without load' };
    const arm = { wrenchLength: 450, adapterLength: 0, adapterAngle: 0 };
    expect(cellsOf('Bearing cap screws: every pull', { kind: 'pull', payload: { ...pull, ...arm } })).toEqual([
      ['1', '2', '3', '42.5 N·m', '42.5 N·m', 'trouble: turns without load', '', ...BY],
    ]);
    expect(sections([{ kind: 'pull', payload: { ...pull, ...arm } }]).get('Bearing cap screws: every pull')?.table?.head).toContain(
      'Torque (of 85 N·m)',
    );
  });

  test('a setting with every try, and as it was left', () => {
    const read = (moment: string, readings: readonly number[]): BookLine => ({
      kind: 'end-play',
      payload: { setting: 'backlash', moment, readings, unit: 'mm' },
    });
    const of = (...lines: readonly BookLine[]): ReportSection | undefined => sections(lines).get('Backlash, at four places, as left');
    expect(of(read('locked', [0.3, 0.31]))).toMatchObject({
      text: ['Not proved yet. Wanted 0.13 to 0.2 mm (published, Ostrel D44 axle manual, 5-28).'],
    });
    const input = { readings: [0.3], from: 0.13, to: 0.2, teethSide: 2, otherSide: 2, rule: 'geometry' };
    const put: BookLine = { kind: 'worked', payload: { working: 'gear.backlash', input, setting: 'backlash' } };
    const bead: BookLine = { kind: 'seal-fitted', payload: { seal: 'cover-joint', depths: [] }, step: 'cover-on' };
    const tries = [read('locked', [0.3, 0.31]), put, read('locked', [0.161, 0.161]), bead];
    const proved = of(...tries);
    // What was done before a reading stands before it, and there alone.
    expect(rowsOf('Worked out', ...tries)).toEqual([]);
    expect(proved?.table?.rows[1]?.cells[0]).toContain('ring to the pinion by');
    expect(proved?.text?.[0]).toContain('As left: 0.161 mm, in; read before “Cover on”, which hides it.');
    expect(proved?.table?.rows.map(({ cells }) => cells[1])).toEqual(['0.3 mm, 0.31 mm', '', '0.161 mm, 0.161 mm']);
  });

  test('who signed and who took it', () => {
    const entries = [
      { kind: 'sign', payload: { name: 'O. Tarrell' } },
      { kind: 'handed-over', payload: { receivedBy: 'Ragna', cautionsTold: true } },
    ] as const satisfies readonly BookLine[];
    expect(cellsOf('Signatures', ...entries)).toEqual([
      ['Proved and signed: O. Tarrell', 'Ilka Varne, mechanic', '09:00'],
      ['Received by: Ragna', 'Ilka Varne, mechanic', '09:00'],
    ]);
    expect(Object.fromEntries(jobReport(jobWith(entries), TIMES).facts)['Handed over']).toBe('09:00 to Ragna');
  });

  test('what is put off, and a way that is not the maker’s', () => {
    const owed: BookLine = { kind: 'owed', payload: { what: 'Boots', due: '2027-03-01', told: 'in spring' } };
    expect(sections([owed]).get('Owed')?.text).toEqual(['Boots, by 1 Mar 2027; the customer: in spring']);
    const agreed = { foreman: 'Oswin', customer: 'as cheap as can be' };
    const way = (payload: object): BookLine => ({ kind: 'way', payload, step: 'cups-in' });
    expect(cellsOf('Other than the maker says', way({ way: 'press', agreed }), way({ way: 'driver-and-hammer' }))).toEqual([
      [expect.stringContaining('departs from the maker'), ...BY],
    ]);
  });
});

test('what was struck stays in its place, struck, with who and why', () => {
  const wrong: BookLine = { kind: 'finding', payload: { text: 'crack in the tube' } };
  const strike: BookLine = { kind: 'strike', payload: { reason: 'a scratch' } };
  const found = sections([wrong, strike], { 1: 'entry 0' });
  const struck = 'struck by Ilka Varne, 09:00: a scratch';
  expect(found.get('As found')?.table?.rows).toEqual([{ cells: ['crack in the tube', ...BY], struck }]);
  expect(found.get('Struck out')?.table?.rows).toEqual([{ cells: ['crack in the tube'], struck }]);
});
