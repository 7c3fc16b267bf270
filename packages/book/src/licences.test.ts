import { expect, test } from '@jest/globals';
import type { SheetFile } from '@jubb/sheet';
import { licenceRefusal, licencesAt, licencesDue, licensedAt, type Licence } from './licences.js';

const TODAY = '2027-03-10';
const licence = (covers: Licence['covers'], until: string | null, number = 'RC 1'): Licence => ({
  ...{ id: number, covers, number, givenBy: 'guild of the valley', until, paperId: null },
});

/** A step with a hold of a certified person, under a caution that names two dangers. */
const sheetOf = (family: string, hazards: readonly string[], who = 'certified person'): SheetFile =>
  ({
    family,
    cautions: [
      { ref: 'gas', text: 'Only by certified people.', licensed: 'By law', hazards },
      { ref: 'hot', text: 'Hot.', hazards: ['heat'] },
    ],
    steps: [{ ref: 'hand-it', cautions: ['gas', 'hot'], holdPoint: { who, what: 'takes it over' } }],
  }) as unknown as SheetFile;
const compressor = sheetOf('axial-piston refrigerant compressor', ['refrigerant', 'pressure']);
const [step] = compressor.steps as [SheetFile['steps'][number]];

test('of a caution with two dangers the one counts that the work of the family is licensed for', () => {
  expect(licensedAt(compressor, step)).toEqual(['refrigerant']);
  expect(licensedAt(sheetOf('turbocharger', ['electric', 'pressure']), step)).toEqual(['electric', 'pressure']);
  const vessels = licence('pressure', null, 'PV 1');
  expect(licencesAt(compressor, step, [vessels])).toEqual([]);
  expect(licencesAt(compressor, step, [vessels, licence('refrigerant', null)])).toHaveLength(1);
});

test.each<[string, readonly Licence[], RegExp | undefined]>([
  ['none is kept: what they say is kept as they say it', [], undefined],
  ['good on its last day', [licence('refrigerant', TODAY)], undefined],
  ['over since yesterday', [licence('refrigerant', '2027-03-09')], /^is over: RC 1, guild of the valley was good until 2027-03-09/u],
  ['an old one beside a good one', [licence('refrigerant', '2020-01-01'), licence('refrigerant', null)], undefined],
  ['one that is over, and a good one for something else', [licence('refrigerant', '2020-01-01'), licence('pressure', null)], /^is over/u],
  [
    'of two that are over the later is named',
    [licence('refrigerant', '2020-01-01'), licence('refrigerant', '2021-01-01', 'RC 2')],
    /RC 2/u,
  ],
])('a certified person: %s', (_, licences, refusal) => {
  const told = licenceRefusal(compressor, 'hand-it', licences, TODAY);
  if (refusal === undefined) expect(told).toBeUndefined();
  else expect(told).toMatch(refusal);
});

test('a hold of somebody else asks for no certificate', () => {
  const second = sheetOf('axial-piston refrigerant compressor', ['refrigerant'], 'second person');
  expect(licenceRefusal(second, 'hand-it', [licence('refrigerant', '2020-01-01')], TODAY)).toBeUndefined();
  expect(licenceRefusal(compressor, undefined, [], TODAY)).toBeUndefined();
});

test('the foreman is told six weeks ahead, and no more once a later one stands beside it or its holder left', () => {
  const due = (...licences: readonly Licence[]): readonly string[] => licencesDue([{ name: 'Bram', licences }], TODAY);
  expect(due(licence('refrigerant', '2027-04-21'))).toEqual(['Bram’s certificate for refrigerant work ends 2027-04-21, in 42 days.']);
  expect(due(licence('refrigerant', '2027-04-22'))).toEqual([]);
  expect(due(licence('refrigerant', '2027-03-01'))).toEqual(['Bram’s certificate for refrigerant work ended 2027-03-01.']);
  expect(due(licence('refrigerant', '2027-03-01'), licence('refrigerant', null))).toEqual([]);
  expect(due(licence('pressure', '2027-03-20'), licence('refrigerant', '2027-03-05'))).toEqual([
    expect.stringContaining('refrigerant work ended'),
    expect.stringContaining('pressure work ends'),
  ]);
  expect(licencesDue([{ name: 'Garrit', leftAt: '2027-01-01T00:00:00Z', licences: [licence('brake', '2020-01-01')] }], TODAY)).toEqual([]);
  expect(licencesDue([{ name: 'Joss', licences: null }], TODAY)).toEqual([]);
});
