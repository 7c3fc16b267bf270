import type { Tool, Limit, SheetFile } from '@jubb/sheet';
import type { AnyKeptEntry } from '../entries/kept.js';
import { finestTool, gridFigure, gridWorking, toolFit, workOut } from './measured.js';
import { reworkOf } from '../runs/rework.js';
import { judgeLimit, readingFigure } from './working-for.js';
import { describe, expect, test } from '@jest/globals';

const span = (from?: string, to?: string): NonNullable<Limit['service']> =>
  ({ ...(from ? { from } : {}), ...(to ? { to } : {}), trust: 'published', source: 'wm' }) as NonNullable<Limit['service']>;
const limit = (rest: Partial<Limit>): Limit =>
  ({ ref: 'bore', name: 'Bore', kind: 'size', how: '', whenOut: 'Hone, or renew.', ...rest }) as Limit;
const tool = (tag: string, u: number, rest: Partial<Tool> = {}): Tool =>
  ({ id: tag, tag, quantity: 'length', low: 0, high: 100, u, s: 0, calibrationDue: null, ...rest }) as Tool;

describe('places', () => {
  const bore = limit({ grid: { rows: 3, columns: 2 }, service: span('50 mm', '50.1 mm') });
  const worn = [50.01, 50.02, 50.03, 50.12, 50.01, 50.02];

  test('the place furthest past the window stands for all, repeats in one place for themselves', () => {
    expect(readingFigure(bore, { readings: worn })).toBe(50.12);
    expect(readingFigure(bore, { readings: [50.01, 50.02] })).toBeCloseTo(50.015, 9);
    expect(gridFigure(bore, [49.98, 50.02], { from: 50, to: 50.1 })).toBe(49.98);
  });

  test('a run-out is its span, with its high spot; a bore has its taper', () => {
    const runout = limit({ grid: { rows: 1, columns: 4, of: 'span' } });
    expect(readingFigure(runout, { readings: [0.02, 0.05, 0.02, -0.01] })).toBeCloseTo(0.06, 9);
    expect(gridWorking(runout, [0, 1, 0, -1])?.id).toBe('measure.runout');
    const worked = gridWorking(bore, worn)!;
    expect(workOut(worked.id, worked.input)).toMatchObject({ used: { output: { outOfRound: expect.closeTo(0.09, 6) } } });
    expect(gridWorking(bore, worn.slice(1))).toBeUndefined();
  });
});

describe('a warm part', () => {
  /** 50 mm of aluminium at 60 °C is 0.046 mm longer: 23·10⁻⁶/K, Machinery's Handbook, from memory. */
  const warm = { partT: 60, metal: 'aluminium' } as const;
  const shaft = limit({ service: span(undefined, '50.02 mm') });

  test('is judged as it would be at 20 °C, with what its temperature leaves open', () => {
    const found = { readings: [50.05], warm };
    expect(readingFigure(shaft, found)).toBeCloseTo(50.05 / (1 + 23e-6 * 40), 9);
    const exact = tool('M1', 0.0001);
    expect(judgeLimit(shaft, { readings: [50.05] }, exact)?.output['verdict']).toBe('out');
    const judged = judgeLimit(shaft, found, exact)!.output;
    expect(judged['verdict']).toBe('in');
    expect(Number(judged['u'])).toBeGreaterThan(0.001);
  });

  test('a part at 20 °C is as it was read', () => {
    expect(readingFigure(shaft, { readings: [50.05], warm: { ...warm, partT: 20 } })).toBeCloseTo(50.05, 12);
  });
});

describe('a window from nothing', () => {
  const dial = tool('D2', 0.004);
  const play = limit({ service: span('0 mm', '0.02 mm') });
  const verdict = (of: Limit, readings: readonly number[]): unknown => judgeLimit(of, { readings: [...readings] }, dial)?.output['verdict'];

  test.each([
    [[0, 0, 0], 'in'],
    [[0.002, 0.001, 0.002], 'in'],
    [[0.019, 0.02, 0.019], 'unsure'],
    [[0.05, 0.05, 0.05], 'out'],
    // Less than nothing was read, so nothing is a limit.
    [[-0.001, 0, 0], 'unsure'],
    [[-0.05, -0.05, -0.05], 'out'],
  ])('%j is %s', (readings, expected) => {
    expect(verdict(play, readings)).toBe(expected);
  });

  test('a span is never less, whatever the dial reads; a window from more than nothing has both its ends', () => {
    expect(verdict(limit({ service: span('0 mm', '0.05 mm'), grid: { rows: 1, columns: 4, of: 'span' } }), [0, -0.001, 0.001, 0])).toBe(
      'in',
    );
    expect(verdict(limit({ service: span('0.01 mm', '0.03 mm') }), [0.01])).toBe('unsure');
  });
});

describe('the tool', () => {
  /** Wanted 1 : 4, expanded uncertainty (k = 2) against the tolerance. Common practice. */
  test.each([
    ['two ends', { service: span('50 mm', '50.02 mm') }, 0.0025, 4, true],
    ['too coarse', { service: span('50 mm', '50.02 mm') }, 0.005, 2, false],
    ['one end, and new', { service: span(undefined, '0.12 mm'), asNew: span(undefined, '0.04 mm') }, 0.01, 4, true],
    ['one end alone', { service: span('5 mm') }, 0.01, undefined, true],
  ])('%s', (_name, rest, u, ratio, enough) => {
    const fit = toolFit(limit(rest), tool('M1', u));
    expect(fit.enough).toBe(enough);
    if (ratio === undefined) expect(fit.ratio).toBeUndefined();
    else expect(fit.ratio).toBeCloseTo(ratio, 6);
  });

  test('the finest one that is in range and in calibration', () => {
    const tools = [
      tool('coarse', 0.01),
      tool('past', 0.0001, { calibrationDue: '2020-01-01' }),
      tool('short', 0.0002, { high: 25 }),
      tool('fine', 0.001),
    ];
    expect(finestTool(limit({ service: span('50 mm', '50.1 mm') }), tools, 'length', '2026-11-25')?.tag).toBe('fine');
  });
});

describe('what is left to take off', () => {
  const sheet = (rest: Partial<Limit>): SheetFile => ({ limits: [limit({ part: 'part', ...rest })] }) as unknown as SheetFile;
  const read = (figure: number, verdict: string): AnyKeptEntry =>
    ({
      kind: 'reading',
      payload: { limit: 'bore', readings: [figure] },
      working: { id: 'measure.verdict', input: {}, output: { verdict } },
    }) as unknown as AnyKeptEntry;

  test('a bore grows towards its upper end, a shaft shrinks towards its lower one', () => {
    const bore = { asNew: span('50 mm', '50.02 mm'), service: span('50 mm', '50.15 mm') };
    expect(reworkOf(sheet(bore), 'part', [read(50.05, 'in')])[0]).toMatchObject({ leaves: '0.1 mm may still come off', says: '' });
    expect(reworkOf(sheet(bore), 'part', [read(50.2, 'out')])[0]).toMatchObject({
      leaves: '0.05 mm too much is gone',
      says: 'Hone, or renew.',
    });
    const shaft = { asNew: span('34.98 mm', '35 mm'), service: span('34.95 mm', '35 mm') };
    expect(reworkOf(sheet(shaft), 'part', [read(34.97, 'in')])[0]?.leaves).toBe('0.02 mm may still come off');
  });

  test('nothing measured, nothing said', () => {
    expect(reworkOf(sheet({}), 'part', [])).toEqual([]);
  });
});
