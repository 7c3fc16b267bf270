import { describe, expect, test } from '@jest/globals';
import type { JobState, Parts, QuoteView } from '@jubb/book';
import { emptySheet } from '@jubb/sheet/editing';
import { askedAgain, bodyOf, lineOf, picturesOf, plannedOption, shareOf, totalOf } from './quote-draft.ts';

const line = (quantity: string, unit: string): Parameters<typeof lineOf>[0] => ({ sort: 'part', what: 'Seal', quantity, unit });

describe('a line as it is typed', () => {
  test.each([
    ['2', '12.50', 2, 1250],
    ['0,75', '68', 0.75, 6800],
    ['1.0005', '1', 1.001, 100],
    ['0', '5', 0, 500],
  ])('%s at %s', (quantity, unit, pieces, minor) => {
    expect(lineOf(line(quantity, unit))).toMatchObject({ quantity: pieces, unitMinor: minor });
  });

  test.each([
    ['', '5'],
    ['two', '5'],
    ['-1', '5'],
    ['100001', '5'],
    ['1', ''],
    ['1', 'dear'],
  ])('"%s" at "%s" is none', (quantity, unit) => {
    expect(lineOf(line(quantity, unit))).toBeUndefined();
  });
});

test.each([
  ['20', 0.2],
  ['7,5 %', 0.075],
  ['0', 0],
  ['100', 1],
  ['', undefined],
  ['101', undefined],
  ['-1', undefined],
  ['a fifth', undefined],
])('a tax of "%s" is a share of %s', (typed, share) => {
  expect(shareOf(typed)).toBe(share);
});

const option = { name: 'As planned', lines: [line('2', '10.00'), { ...line('1.5', '68'), sort: 'labour' as const, what: 'Labour' }] };
const quote = {
  to: ' Perla ',
  words: ' ',
  validUntil: '2027-03-14',
  tax: '20',
  findings: [
    { words: 'Race', verdict: 'out' as const, shown: true },
    { words: 'Seal', verdict: 'unsure' as const, shown: false },
  ],
  pictures: [],
  options: [option],
};

test('the total is what the lines come to, with the tax on it', () => {
  // 2 × 10.00 + 1.5 × 68.00 = 122.00; a fifth on it.
  expect(totalOf(option, '20')).toBe(14_640);
  expect(totalOf(option, 'none')).toBe(12_200);
});

describe('what goes out', () => {
  test('is what is shown, trimmed, without what was left empty', () => {
    const body = bodyOf('id', quote);
    expect(body).toMatchObject({ id: 'id', to: 'Perla', taxShare: 0.2, findings: [{ words: 'Race', verdict: 'out' }] });
    expect(body).not.toHaveProperty('words');
    expect(body!.findings[0]).not.toHaveProperty('shown');
  });

  test.each([
    ['nobody to send it to', { to: ' ' }],
    ['no tax', { tax: '' }],
    ['an option without a name', { options: [{ ...option, name: '' }] }],
    ['a line without a price', { options: [{ ...option, lines: [line('1', '')] }] }],
    ['a line without a name', { options: [{ ...option, lines: [{ ...line('1', '1'), what: ' ' }] }] }],
  ])('with %s nothing does', (_, change) => {
    expect(bodyOf('id', { ...quote, ...change })).toBeUndefined();
  });
});

test('asked again after a yes, only what is dearer has another price', () => {
  const sent = {
    ...bodyOf('id', quote)!,
    options: [
      {
        name: 'As planned',
        lines: [
          { sort: 'part', what: 'Seal', number: 'S-1', quantity: 2, unitMinor: 1000 },
          { sort: 'part', what: 'Nut', number: 'N-1', quantity: 1, unitMinor: 300 },
        ],
      },
    ],
  } as unknown as QuoteView['body'];
  const again = askedAgain({ body: sent } as QuoteView, [{ number: 'S-1', nowMinor: 1250 } as never], '2027-04-01');
  expect(again.options[0]!.lines.map(({ unit }) => unit)).toEqual(['12.50', '3.00']);
  expect(again.validUntil).toBe('2027-04-01');
  expect(bodyOf('id', again)!.options[0]!.lines.map(({ unitMinor }) => unitMinor)).toEqual([1250, 300]);
});

describe('the option that is planned', () => {
  const sheet = {
    ...emptySheet({ key: 'hub', make: 'Harrowmere', model: 'TH-6', machine: 'Tractor' }, 'hub'),
    whileOpen: [
      { ref: 'cups', work: 'Renew the cups', why: 'They are in reach now', comeBack: '4 h' },
      { ref: 'paint', work: 'Paint it', why: 'It is bare' },
    ],
  };
  const parts = {
    lines: [
      { need: { name: 'Seal', number: 'S-1', pieces: 1, unit: 'piece' }, others: [], offers: [] },
      { need: { name: 'Grease', number: null, pieces: 0.3, unit: 'kg' }, others: [], offers: [] },
    ],
  } as unknown as Parts;
  const planned = plannedOption(parts, { sheet } as unknown as JobState, 3.5, { hourlyMinor: 6800, marginShare: 0.35 });

  test('has the labour first, then parts, then what is cheap while it is open', () => {
    expect(planned.lines.map(({ sort, quantity, optional }) => [sort, quantity, optional ?? false])).toEqual([
      ['labour', '3.5', false],
      ['part', '1', false],
      ['part', '0.3', false],
      // A quarter of what it takes to come back, and half an hour where nobody says.
      ['labour', '1', true],
      ['labour', '0.5', true],
    ]);
  });

  test('a part of which nobody said a price has none, so that the quote does not go out', () => {
    expect(planned.lines.slice(1, 3).map(({ unit }) => unit)).toEqual(['', '']);
    expect(bodyOf('id', { ...quote, options: [planned] })).toBeUndefined();
  });

  test('what is weighed is sold by its unit', () => {
    expect(planned.lines[2]).toMatchObject({ what: 'Grease (kg)' });
    expect(planned.lines[2]).not.toHaveProperty('number');
  });
});

test('a photo without words is shown as it was found', () => {
  const photo = (words?: string): object => ({
    kind: 'photo',
    payload: { file: 'f', width: 4, height: 3, ...(words === undefined ? {} : { words }) },
  });
  const live = [photo(), photo('  '), photo('Track'), { kind: 'note', payload: { text: 'x' } }];
  expect(picturesOf({ live } as unknown as JobState).map(({ words }) => words)).toEqual(['As it was found', 'As it was found', 'Track']);
});
