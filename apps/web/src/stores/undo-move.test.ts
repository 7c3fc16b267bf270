import type { StockView } from '@jubb/wire';
import { describe, expect, test } from '@jest/globals';
import { takenBack } from './undo-move.ts';

const line = (onHand: number): StockView => ({ onHand }) as StockView;

describe('a movement is taken back', () => {
  test.each([
    ['receive', 'issue'],
    ['issue', 'return'],
    ['return', 'issue'],
    ['reserve', 'release'],
    ['release', 'reserve'],
  ] as const)('%s by %s, of the same job and batch', (kind, back) => {
    const movement = { kind, quantity: 3, jobId: 'job', batch: 'B7' };
    expect(takenBack(movement, line(5), line(8))).toEqual({ kind: back, quantity: 3, jobId: 'job', batch: 'B7', words: 'taken back' });
  });

  test('a count by what was there before it; none where it moved nothing yet', () => {
    expect(takenBack({ kind: 'count', quantity: 9 }, line(7), line(9))).toEqual({ kind: 'count', quantity: 7, words: 'taken back' });
    expect(takenBack({ kind: 'count', quantity: 9 }, line(7), line(7))).toBeUndefined();
  });
});
