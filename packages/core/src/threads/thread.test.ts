import { describe, expect, test } from '@jest/globals';
import { output, refused } from '../working/run.test-kit.js';
import { parseThread } from './thread.js';

describe('threads as the standards write them', () => {
  /** ASME B1.1: a numbered size is 0.060 + 0.013·n in, with or without its sign; ISO 965-1: left hand is -LH. From memory. */
  test.each([
    ['10-32', 0.19 * 25.4, 32],
    ['#10-32 UNF-2A', 0.19 * 25.4, 32],
    ['0.190-32 UNF-2A', 0.19 * 25.4, 32],
    ['0-80', 0.06 * 25.4, 80],
    ['12-24', 0.216 * 25.4, 24],
    ['1-64', 0.073 * 25.4, 64],
    ['1-8 UNC', 25.4, 8],
    ['2-4.5', 50.8, 4.5],
    ['1 1/8-12 UNF', 28.575, 12],
    ['1-1/8-12 UN', 28.575, 12],
    ['.250-20 UNC-2A-LH', 6.35, 20],
  ])('%s is %d mm, %d to the inch', (text, diameter, tpi) => {
    const thread = parseThread(text)!;
    expect(thread.diameter).toBeCloseTo(diameter, 9);
    expect(25.4 / thread.pitch).toBeCloseTo(tpi, 9);
  });

  test.each([
    ['M12x1.25-LH', 'left'],
    ['M12-6g-LH', 'left'],
    ['M14x1.5-5g6g-L-LH', 'left'],
    ['1/4-20 UNC-2A-LH', 'left'],
    ['G 1/2 LH', 'left'],
    ['M12x1.25', 'right'],
    ['M6x1-6H/6g', 'right'],
  ])('%s is a %s-hand thread', (text, hand) => {
    expect(parseThread(text)?.hand).toBe(hand);
  });

  test.each([
    '1/0-20',
    '0/4-20',
    '5/4-20',
    '4/4-20',
    '#1-8',
    '7-20',
    '#10-0',
    '1/4-2',
    '1/2-20 UNC',
    'M4x2',
    'M0x1',
    'M10x0',
    'M16xPh3P1.5',
    '1/4-19 NPT',
  ])('%s cannot be', (text) => {
    expect(parseThread(text)).toBeUndefined();
  });

  test('what cannot be is refused where a torque is asked, never infinity', () => {
    expect(refused('torque.preload', { thread: '1/0-20', propertyClass: '8.8', torque: 5 })).toContain('names no 60° thread');
    expect(output('thread.areas', { thread: '10-32' })['stressAreaIn']).toBeCloseTo(0.02, 3);
  });
});
