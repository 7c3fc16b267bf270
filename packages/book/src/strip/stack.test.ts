import type { KeptEntry } from '../entries/kept.js';
import { signOf, stacksOf, upwards, type StackLine } from './stack.js';
import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';

type Payload = KeptEntry<'came-off'>['payload'];

function ledger(...payloads: readonly Partial<Payload>[]): readonly KeptEntry<'came-off'>[] {
  return payloads.map(
    (payload, index) =>
      ({ id: `e${index}`, kind: 'came-off', payload: { count: 1, name: `part ${index}`, ...payload } }) as unknown as KeptEntry<'came-off'>,
  );
}
const ids = (lines: readonly StackLine[]): readonly string[] => lines.flatMap((line) => [line.entryId, ...ids(line.inner)]);

describe('a stack', () => {
  test('holds its parts in the order they came off, each with its sign', () => {
    const [shaft, ...others] = stacksOf(
      ledger(
        { stack: 'shaft', direction: 'bevel up' },
        { tray: '1' },
        { stack: 'shaft', direction: 'lip towards the rotor', mark: 'paint line' },
        { stack: 'valve plates', direction: 'small port down' },
        { stack: 'shaft', direction: 'one notch over' },
      ),
    );
    expect(shaft?.lines.map(({ entryId, sign, looks }) => [entryId, sign, looks])).toEqual([
      ['e0', 'bevel', 'first'],
      ['e2', 'lip', 'last'],
      ['e4', 'notch', 'last'],
    ]);
    expect(others.map(({ name }) => name)).toEqual(['valve plates']);
    expect(signOf('as it came')).toBeUndefined();
  });

  test('of an assembly that was opened later nests, and is a stack of its own where it lay in none', () => {
    const [pack, ...none] = stacksOf(
      ledger({ name: 'clutch pack, whole' }, { inside: 'e0' }, { inside: 'e0' }, { inside: 'e2', direction: 'step first' }),
    );
    expect(none).toEqual([]);
    expect(pack?.name).toBe('clutch pack, whole');
    expect(ids(pack?.lines ?? [])).toEqual(['e0', 'e1', 'e2', 'e3']);
    expect(ids(upwards(pack?.lines ?? []))).toEqual(['e0', 'e2', 'e3', 'e1']);
  });

  const lines = fc.array(
    fc.record({
      stack: fc.option(fc.constantFrom('shaft', 'plates'), { nil: undefined }),
      parent: fc.option(fc.nat(20), { nil: undefined }),
    }),
    { maxLength: 25 },
  );

  test('reversed twice is as it was, and no line is lost, doubled or its own inside', () => {
    fc.assert(
      fc.property(lines, (given) => {
        const entries = ledger(
          ...given.map(({ stack, parent }, index) => ({
            ...(stack === undefined ? {} : { stack }),
            ...(parent !== undefined && parent < index ? { inside: `e${parent}` } : {}),
          })),
        );
        const stacks = stacksOf(entries);
        const all = stacks.flatMap((stack) => ids(stack.lines));
        expect(new Set(all).size).toBe(all.length);
        for (const stack of stacks) expect(upwards(upwards(stack.lines))).toEqual(stack.lines);
        // Whoever lies in a stack, or inside something that is drawn, is drawn.
        const drawn = new Set(all);
        for (const { id, payload } of entries)
          if (payload.inside === undefined ? payload.stack !== undefined : drawn.has(payload.inside)) expect(drawn.has(id)).toBe(true);
      }),
    );
  });
});
