import { describe, expect, test } from '@jest/globals';
import { find } from '@jubb/sheet';
import { book, demoSheet, type BookLine } from './book.test-kit.js';
import { checkOnJob } from './entries/check.js';
import { GENERAL_LADDER, ladderAt, laddersOpen } from './ladder.js';
import { jobState } from './state.js';

const axle = demoSheet('ostrel-sf30-axle-shaft');
const AT = 'ring-cut-and-cracked';
const rungs = find(axle.steps, AT)!.ladder!;
const rung = (at: number, came = false, what = 'Retainer ring'): BookLine => ({
  kind: 'rung',
  step: AT,
  payload: { what, rung: at, tried: rungs[at - 1] ?? 'x', came },
});
const hold: BookLine = { kind: 'hold', payload: { reason: 'help', words: 'Retainer ring will not come: Oswin' } };
const given = (line: BookLine, strikes: string | null = null) =>
  ({ id: `new ${line.kind}`, strikes, takenAt: '2026-11-29T08:00:00.000Z', ...line, step: line.step ?? null }) as never;
function refused(lines: readonly BookLine[], ...before: readonly BookLine[]): string | undefined {
  const found = checkOnJob(
    lines.map((line) => given(line)),
    book(axle, ...before),
    axle,
    { role: 'mechanic', personId: 'ilka' },
  );
  return found && (found.detail ?? found.errors[0]?.allowed);
}
const all = rungs.map((_, at) => rung(at + 1));

describe('what will not come', () => {
  test('has a ladder everywhere: the sheet’s own, else the common one, whose last rung asks', () => {
    expect(ladderAt(axle, [], AT, 'Retainer ring')).toMatchObject({ rungs, next: rungs[0], asks: false });
    expect(ladderAt(axle, [], 'seal-out', 'Seal').rungs).toEqual(GENERAL_LADDER);
    expect(GENERAL_LADDER.at(-1)).toMatch(/ask/u);
  });

  test('goes rung by rung: none is jumped, none tried twice', () => {
    expect(refused([rung(1)])).toBeUndefined();
    expect(refused([rung(2)])).toMatch(/^1 is the one to try now/u);
    expect(refused([rung(1)], rung(1))).toMatch(/^2 is the one/u);
    expect(laddersOpen(axle, book(axle, rung(1)))).toMatchObject([{ what: 'Retainer ring', next: rungs[1] }]);
  });

  test('the last rung stands with a hold that asks, in the same breath or before; with none it is refused', () => {
    const before = all.slice(0, -1);
    expect(refused([all.at(-1)!], ...before)).toBe('is the last one: put the job on hold with it, and ask');
    expect(refused([hold, all.at(-1)!], ...before)).toBeUndefined();
    expect(refused([rung(rungs.length, true)], ...before)).toBeUndefined();
    const state = jobState(axle, book(axle, ...before, hold, all.at(-1)!));
    expect(state.ladders).toMatchObject([{ next: undefined, tried: { length: rungs.length } }]);
  });

  test('once it came it is over; the same thing at another time begins anew', () => {
    const came = book(axle, rung(1), rung(2, true));
    expect(laddersOpen(axle, came)).toEqual([]);
    expect(ladderAt(axle, came, AT, 'Retainer ring').next).toBe(rungs[0]);
    expect(refused([rung(1)], rung(1), rung(2, true))).toBeUndefined();
    // A neighbour has a ladder of its own.
    expect(refused([rung(1, false, 'Drum')], rung(1))).toBeUndefined();
  });

  test('a rung in the middle is not struck from under the later ones; the last one is', () => {
    const entries = book(axle, rung(1), rung(2));
    const strike = (id: string) =>
      checkOnJob([given({ kind: 'strike', payload: { reason: 'not tried' } }, id)], entries, axle, { role: 'mechanic', personId: 'ilka' });
    expect(strike(entries[0]!.id)?.errors[0]?.allowed).toBe('has later rungs standing on it: strike the last one first');
    expect(strike(entries[1]!.id)).toBeUndefined();
  });
});
