import { describe, expect, test } from '@jest/globals';
import type { KeptEntry } from '../entry/kept.js';
import type { JointRun } from './joint-run.js';
import { pullLook, torqueLog } from './pull-look.js';

const pull = (place: number, angle: number | undefined, rest: object = {}): KeptEntry<'pull'> =>
  ({
    payload: { joint: 'j', pass: 1, place, torque: 24, result: 'clicked', ...(angle === undefined ? {} : { angle }), ...rest },
    toolId: 'w',
    personId: 'p',
    takenAt: '2026-11-25T09:00:00Z',
  }) as unknown as KeptEntry<'pull'>;
const run = (...pulls: readonly KeptEntry<'pull'>[]): JointRun =>
  ({ joint: { name: 'Cover' }, pulls, numbers: [1, 3, 2, 4] }) as unknown as JointRun;
const brothers = [pull(0, 60), pull(1, 62), pull(2, 58)];

describe('what a pull looks like', () => {
  test.each([
    ['like its brothers', 61, undefined],
    ['little angle for the torque', 22, 'stopped early'],
    ['much angle for the torque', 120, 'turned too far'],
    ['a wrench without an angle', undefined, undefined],
  ])('%s', (_name, angle, what) => {
    const last = pull(3, angle);
    expect(pullLook(run(...brothers, last), last)?.what).toBe(what);
  });

  test('two brothers make no middle, and another round is no brother', () => {
    const last = pull(3, 10);
    expect(pullLook(run(brothers[0]!, brothers[1]!, last), last)).toBeUndefined();
    expect(pullLook(run(...brothers.map((one) => ({ ...one, payload: { ...one.payload, pass: 2 } })), last), last)).toBeUndefined();
  });
});

test('the log has a row for each pull, and a hand that measured nothing says so', () => {
  const [head, ...rows] = torqueLog([run(pull(1, 62, { peak: 24.3 }), pull(2, undefined, { torque: 0 }))], {
    tool: () => 'W2',
    person: () => 'Ilka',
  });
  expect(head).toContain('wanted N·m');
  expect(rows[0]).toEqual(['Cover', '1', '3', '24', 'clicked', '24.3', '62', '', 'W2', 'Ilka', '2026-11-25T09:00:00Z']);
  expect(rows[1]?.[3]).toBe('by hand, unmeasured');
});
