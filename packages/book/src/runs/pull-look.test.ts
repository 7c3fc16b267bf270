import type { KeptEntry } from '../entries/kept.js';
import type { JointRun } from './joint-run.js';
import { pullLook, torqueLog } from './pull-look.js';
import { describe, expect, test } from '@jest/globals';

const pull = (place: number, angle: number | undefined, rest: object = {}): KeptEntry<'pull'> =>
  ({
    payload: { joint: 'j', pass: 1, place, torque: 24, result: 'clicked', ...(angle === undefined ? {} : { angle }), ...rest },
    toolId: 'w',
    personId: 'p',
    takenAt: '2026-11-25T09:00:00Z',
  }) as unknown as KeptEntry<'pull'>;
/** Four in the order 0, 2, 1, 3, twice round. */
const PLAN = [1, 2].flatMap((pass) => [0, 2, 1, 3].map((place) => ({ pass, place, torqueNm: 12 * pass })));
const run = (...pulls: readonly KeptEntry<'pull'>[]): JointRun =>
  ({ joint: { name: 'Cover' }, pulls, numbers: [1, 3, 2, 4], plan: PLAN }) as unknown as JointRun;
const brothers = [pull(0, 60), pull(2, 62), pull(1, 58)];

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
    const last = pull(1, 10);
    expect(pullLook(run(brothers[0]!, brothers[1]!, last), last)).toBeUndefined();
    const others = brothers.map((one) => ({ ...one, payload: { ...one.payload, pass: 2 } }));
    expect(pullLook(run(...others, last), last)?.what).not.toBe('stopped early');
  });

  test('out of turn: evened out by the next pass, slackened in the last one', () => {
    const early = pull(1, undefined);
    expect(pullLook(run(pull(0, undefined), early), early)).toMatchObject({
      what: 'out of turn',
      todo: expect.stringContaining('next pass'),
    });
    const all = [0, 2, 1, 3].map((place) => pull(place, undefined));
    const late = pull(3, undefined, { pass: 2 });
    expect(pullLook(run(...all, late), late)).toMatchObject({ what: 'out of turn', todo: expect.stringContaining('Slacken this one') });
  });

  test('pulled twice, but not where the first try was trouble', () => {
    const again = pull(0, undefined);
    expect(pullLook(run(pull(0, undefined), again), again)?.what).toBe('pulled twice');
    expect(pullLook(run(pull(0, undefined, { result: 'trouble' }), again), again)).toBeUndefined();
  });

  test('kept although its curve showed something: it says what', () => {
    const last = pull(0, 300, { sight: 'turns without load' });
    expect(pullLook(run(last), last)).toMatchObject({ what: 'turns without load', todo: expect.stringContaining('stripped') });
  });
});

test('the log has a row for each pull, and a hand that measured nothing says so', () => {
  const [head, ...rows] = torqueLog([run(pull(0, 62, { peak: 24.3 }), pull(2, undefined, { torque: 0 }))], {
    tool: () => 'W2',
    person: () => 'Ilka',
  });
  expect(head).toContain('wanted N·m');
  expect(rows[0]).toEqual(['Cover', '1', '1', '24', 'clicked', '24.3', '62', '', 'W2', 'Ilka', '2026-11-25T09:00:00Z']);
  expect(rows[1]?.[3]).toBe('by hand, unmeasured');
});
