import type { KitOffer, Need } from './needs.js';
import { coverOffers, partLines, type Parts } from './part-lines.js';
import type { QuoteView } from './quote-body.js';
import { risenSince, soldAt } from './quote.js';
import type { JobPartsView, SupplierOffer } from './stock.js';
import { describe, expect, test } from '@jest/globals';
import { cheapestCover } from '@jubb/core';
import fc from 'fast-check';

const need = (number: string | null, pieces: number, rest: Partial<Need> = {}): Need => ({
  parts: ['x'],
  name: 'Ring',
  number,
  was: null,
  designation: null,
  pieces,
  unit: 'piece',
  because: '',
  sure: true,
  ...rest,
});
const shelf = (number: string, rest: object = {}): JobPartsView['stock'][number] =>
  ({
    id: number,
    number,
    name: 'Ring',
    unit: 'piece',
    designation: null,
    onHand: 5,
    reserved: 0,
    reservedHere: 0,
    issuedHere: 0,
    ...rest,
  }) as JobPartsView['stock'][number];
const offer = (supplier: string, number: string, priceMinor: number, rest: Partial<SupplierOffer> = {}): SupplierOffer => ({
  supplier,
  number,
  name: 'Ring',
  priceMinor,
  breaks: [],
  leadDays: 2,
  leadSpread: 1,
  available: true,
  supersededBy: null,
  ...rest,
});
const order = (number: string, quantity: number, received = 0): JobPartsView['ordered'][number] => ({
  number,
  quantity,
  received,
  state: 'confirmed',
  due: '2026-12-01',
});
const NOTHING: JobPartsView = { stock: [], offers: [], ordered: [] };
const kit: KitOffer = {
  ref: 'kit',
  name: 'Kit',
  number: 'K',
  brings: [
    { need: 0, pieces: 2 },
    { need: 1, pieces: 1 },
  ],
};

describe('where a need stands', () => {
  test.each([
    ['nothing anywhere', NOTHING, { kept: 0, out: 0, ordered: 0, open: 4 }],
    [
      'some kept, some out',
      { ...NOTHING, stock: [shelf('A', { reservedHere: 1, issuedHere: 2 })] },
      { kept: 1, out: 2, ordered: 0, open: 1 },
    ],
    ['the rest on order', { ...NOTHING, ordered: [order('A', 4)] }, { ordered: 4, open: 0, due: '2026-12-01' }],
    [
      'half of the order is here, and kept',
      { ...NOTHING, stock: [shelf('A', { reservedHere: 2 })], ordered: [order('A', 4, 2)] },
      { kept: 2, ordered: 2, open: 0 },
    ],
    ['a kit on order brings two', { ...NOTHING, ordered: [order('K', 1)] }, { ordered: 2, open: 2 }],
    [
      'the kit is here',
      { ...NOTHING, stock: [shelf('K', { reservedHere: 1 })], ordered: [order('K', 1, 1)] },
      { kept: 2, ordered: 0, open: 2 },
    ],
    ['the kit was taken out', { ...NOTHING, stock: [shelf('K', { issuedHere: 1 })] }, { kept: 0, out: 2, open: 2 }],
    ['more is out than was needed', { ...NOTHING, stock: [shelf('A', { issuedHere: 9 })] }, { open: 0 }],
  ])('%s', (_name, view, expected) => {
    expect(partLines([need('A', 4), need('B', 1)], [kit], view)[0]).toMatchObject(expected);
  });

  test('what is in hand from elsewhere is not missing; what was taken out of stores is not counted twice', () => {
    const line = (view: JobPartsView, here: number): object => partLines([need('A', 4)], [], view, () => here)[0]!;
    expect(line(NOTHING, 3)).toMatchObject({ here: 3, out: 0, open: 1 });
    expect(line({ ...NOTHING, stock: [shelf('A', { issuedHere: 2 })] }, 2)).toMatchObject({ here: 2, out: 2, open: 2 });
    expect(line(NOTHING, 4)).toMatchObject({ open: 0 });
  });

  test('another line of the same designation fits, in the same unit only', () => {
    const bearing = need('A', 1, { designation: '6205-2RS' });
    const stock = [shelf('A', { onHand: 0 }), shelf('Z', { designation: '6205-2RS' }), shelf('Y', { designation: '6205-2RS', unit: 'L' })];
    expect(partLines([bearing], [], { ...NOTHING, stock })[0]?.others.map(({ number }) => number)).toEqual(['Z']);
  });
});

describe('what can be bought', () => {
  const lines = (view: JobPartsView): ReturnType<typeof coverOffers> =>
    coverOffers({ lines: partLines([need('A', 4), need('B', 1)], [kit], view), kits: [kit], view });

  test('each number from whoever has it cheapest; not what is sold out or replaced', () => {
    const offers = [
      offer('one', 'A', 300),
      offer('two', 'A', 250),
      offer('one', 'B', 90, { available: false }),
      offer('two', 'K', 700),
      offer('one', 'K', 10, { supersededBy: 'K2' }),
    ];
    expect(lines({ ...NOTHING, offers }).map(({ number, supplier, price }) => [number, supplier, price])).toEqual([
      ['A', 'two', 250],
      ['K', 'two', 700],
    ]);
  });

  test('price breaks: the cheapest cover is the cheapest that money can buy, more than is needed where that is less', () => {
    const price = (pieces: number, breaks: readonly { from: number; priceMinor: number }[]): number =>
      pieces * (breaks.filter(({ from }) => from <= pieces).at(-1)?.priceMinor ?? 300);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 2, max: 10 }),
        fc.integer({ min: 50, max: 299 }),
        (open, from, broken) => {
          const breaks = [{ from, priceMinor: broken }];
          const view = { ...NOTHING, offers: [offer('one', 'A', 300, { breaks })] };
          const bought = coverOffers({ lines: partLines([need('A', open)], [], view), kits: [], view });
          const counts = Array.from({ length: 20 }, (_, index) => open + index);
          expect(cheapestCover([open], bought)?.price).toBe(Math.min(...counts.map((count) => price(count, breaks))));
        },
      ),
    );
  });

  test('nothing is bought for what is covered', () => {
    expect(lines({ ...NOTHING, offers: [offer('one', 'A', 300)], ordered: [order('A', 4)] })).toEqual([]);
  });
});

describe('dearer since the yes', () => {
  const quoted = (unitMinor: number, without: number[] = []): QuoteView =>
    ({
      state: 'yes',
      body: { taxShare: 0.2, options: [{ name: 'x', lines: [{ sort: 'part', what: 'Ring', quantity: 4, unitMinor, number: 'A' }] }] },
      answer: { answer: 'yes', option: 0, without, at: '' },
    }) as unknown as QuoteView;
  const parts = (view: JobPartsView): Parts => ({ lines: partLines([need('A', 4)], [], view), kits: [], view });
  const bought = { ...NOTHING, offers: [offer('one', 'A', 300)] };

  test.each([
    ['a price that rose', quoted(380), bought, [{ number: 'A', what: 'Ring', wasMinor: 380, nowMinor: 405 }]],
    ['one that did not', quoted(405), bought, []],
    ['a line that was left out', quoted(380, [0]), bought, []],
    ['what is kept for the job already', quoted(380), { ...bought, stock: [shelf('A', { reservedHere: 4, priceMinor: 900 })] }, []],
    [
      'what lies on the shelf, at the price of the shelf',
      quoted(380),
      { ...bought, stock: [shelf('A', { priceMinor: 385 })] },
      [{ number: 'A', what: 'Ring', wasMinor: 380, nowMinor: 385 }],
    ],
    ['a quote without its yes', { ...quoted(380), state: 'sent' } as QuoteView, bought, []],
  ])('%s', (_name, quote, view, risen) => {
    expect(risenSince(quote, parts(view), 0.35)).toEqual(risen);
  });
});

describe('what a piece is sold at', () => {
  const lineWith = (shelved: object | undefined, offers: readonly SupplierOffer[]): Parameters<typeof soldAt>[0] =>
    ({
      need: need('A', 1),
      shelf: shelved && shelf('A', shelved),
      others: [],
      offers,
    }) as unknown as Parameters<typeof soldAt>[0];

  test('the shelf’s price; what must be bought is not under what it costs, with the margin', () => {
    expect(soldAt(lineWith({ priceMinor: 900 }, [offer('s', 'A', 2000)]), 0.25)).toBe(900);
    expect(soldAt(lineWith({ priceMinor: 900, onHand: 0 }, [offer('s', 'A', 2000)]), 0.25)).toBe(2500);
  });

  test('nothing where nobody has said one: a shelf at nothing, no offer, or one that is sold out', () => {
    expect(soldAt(lineWith(undefined, []), 0.25)).toBeUndefined();
    expect(soldAt(lineWith({ priceMinor: 0 }, []), 0.25)).toBeUndefined();
    expect(soldAt(lineWith(undefined, [offer('s', 'A', 2000, { available: false })]), 0.25)).toBeUndefined();
    // A shelf without a price is sold at what the next one would cost.
    expect(soldAt(lineWith({ priceMinor: 0 }, [offer('s', 'A', 2000)]), 0.25)).toBe(2500);
  });
});
