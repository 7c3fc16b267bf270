import { readLedgerLine, type LedgerLine } from './ledger-line.js';
import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';

describe('a typed line of the ledger', () => {
  test.each<[string, LedgerLine | undefined]>([
    ['6 x M8x25 top cover tray 3', { count: 6, size: 'M8 x 25', name: 'top cover', tray: '3' }],
    ['6xM8×25 cover, tray 2', { count: 6, size: 'M8 x 25', name: 'cover', tray: '2' }],
    ['4 M8x1.25x25 bolts bin B2', { count: 4, size: 'M8x1.25 x 25', name: 'bolts', tray: 'B2' }],
    ['12 M10x1 nuts', { count: 12, size: 'M10x1', name: 'nuts' }],
    ['3 1/4-20 UNC x 1 screws', { count: 3, size: '1/4-20 UNC x 1', name: 'screws' }],
    ['2 #10-32 screws from the brush holder', { count: 2, size: '#10-32', name: 'screws', place: 'brush holder' }],
    ['18 balls, 9 each side', { count: 18, name: 'balls, 9 each side' }],
    [
      'snap ring, 2 ears, bevel up, from front groove',
      { count: 1, name: 'snap ring, 2 ears', direction: 'bevel up', place: 'front groove' },
    ],
    ['washer lip towards the rotor paint line', { count: 1, name: 'washer', direction: 'lip towards the rotor', mark: 'paint line' }],
    ['carrier cap, dot to dot', { count: 1, name: 'carrier cap', mark: 'dot to dot' }],
    ["rotor at 3 o'clock", { count: 1, name: 'rotor at', mark: "3 o'clock" }],
    ['2 springs, broken, tray 1', { count: 2, name: 'springs', condition: 'broken', tray: '1' }],
    ['shim 0,35 mm', { count: 1, name: 'shim', size: '0,35 mm' }],
    ['plate, one notch over', { count: 1, name: 'plate', direction: 'one notch over' }],
    ['valve-plate pack, small port up, stack: Head', { count: 1, name: 'valve-plate pack', direction: 'small port up', stack: 'Head' }],
    ['M6x16', { count: 1, name: 'M6 x 16', size: 'M6 x 16' }],
    ['', undefined],
    ['0 x bolts', undefined],
    ['1001 bolts', undefined],
    ['tray 3', undefined],
  ])('%s', (text, line) => {
    expect(readLedgerLine(text)).toEqual(line);
  });

  const word = fc.constantFrom('cover', 'case bolt', 'spacer', 'thrust washer', 'fan', 'key');
  const optional = <T>(some: fc.Arbitrary<T>): fc.Arbitrary<T | undefined> => fc.option(some, { nil: undefined });
  const line = fc.record({
    count: fc.integer({ min: 1, max: 1000 }),
    name: word,
    size: optional(fc.constantFrom('M8 x 25', 'M12x1.5 x 40', 'M5 x 16')),
    place: optional(fc.constantFrom('front groove', 'rear housing')),
    tray: optional(fc.constantFrom('1', 'B2')),
    direction: optional(fc.constantFrom('bevel up', 'lip in', 'port down')),
    mark: optional(fc.constantFrom('dot to dot', 'paint line')),
    condition: optional(fc.constantFrom('bent', 'scored')),
    stack: optional(fc.constantFrom('Head', 'Clutch pack')),
  });

  test('says again what it was made of, in whatever order it is said', () => {
    fc.assert(
      fc.property(line, fc.infiniteStream(fc.nat(1000)), ({ count, name, size, place, tray, stack, ...rest }, order) => {
        const parts = [size, place && `from ${place}`, tray && `tray ${tray}`, stack && `stack: ${stack}`, ...Object.values(rest)].filter(
          (part) => part !== undefined,
        );
        const keys = new Map(parts.map((part) => [part, order.next().value as number]));
        const shuffled = parts.toSorted((a, b) => (keys.get(a) ?? 0) - (keys.get(b) ?? 0));
        const wanted = Object.fromEntries(
          Object.entries({ count, name, size, place, tray, stack, ...rest }).filter(([, part]) => part !== undefined),
        );
        expect(readLedgerLine(`${count} x ${name}, ${shuffled.join(', ')}`)).toEqual(wanted);
      }),
    );
  });

  test('of any rubbish is a line within bounds, or none', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), (text) => {
        const read = readLedgerLine(text);
        if (!read) return;
        expect(read.count).toBeGreaterThanOrEqual(1);
        expect(read.count).toBeLessThanOrEqual(1000);
        expect(read.name.trim()).not.toBe('');
        expect(Object.values(read).every((part) => String(part).length <= 200)).toBe(true);
      }),
    );
  });
});
