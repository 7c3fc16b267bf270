import { expect, test } from '@jest/globals';
import type { AnyKeptEntry } from './entries/kept.js';
import { stageSum } from './stage-sum.js';

const limits = [
  { ref: 'bore', name: 'Bore' },
  { ref: 'play', name: 'Play' },
  { ref: 'track', name: 'Track', looks: [{ ref: 'blue', words: 'Blue', verdict: 'out' }] },
];
const steps = ['bore', 'play', 'track'].map((ref) => ({ step: { ref, stage: 'measure' }, done: true }));
const state = {
  sheet: { limits },
  steps: [...steps, { step: { ref: 'decide', stage: 'decide', title: 'What is renewed' }, done: false }],
  struck: new Map([['wrong', {}]]),
} as never;

const at = (minute: number): string => new Date(Date.UTC(2027, 2, 1, 9, minute)).toISOString();
const reading = (id: string, limit: string, verdict: string, minute: number): AnyKeptEntry =>
  ({
    id,
    kind: 'reading',
    step: limit,
    payload: { limit },
    working: { id: 'measure.verdict', output: { verdict } },
    takenAt: at(minute),
  }) as never;
const look = {
  id: 'look',
  kind: 'look',
  step: 'track',
  payload: { limit: 'track', look: 'blue' },
  working: null,
  takenAt: at(50),
} as never;

test('a stage ends with what is out, unsure and struck, how long it took, and what comes next', () => {
  const entries = [
    reading('wrong', 'bore', 'out', 5),
    reading('one', 'bore', 'in', 10),
    reading('two', 'play', 'unsure', 20),
    look,
    reading('other', 'elsewhere', 'out', 300),
  ];
  expect(stageSum(state, entries, 'measure')).toEqual({
    out: ['Track'],
    unsure: ['Play'],
    struck: 1,
    minutes: 40,
    next: { ref: 'decide', stage: 'decide', title: 'What is renewed' },
  });
});

test('of what was measured again the last word stands; of a stage without entries there is nothing to say', () => {
  expect(stageSum(state, [reading('a', 'bore', 'out', 0), reading('b', 'bore', 'in', 1)], 'measure').out).toEqual([]);
  expect(stageSum(state, [], 'measure')).toMatchObject({ out: [], unsure: [], struck: 0, minutes: 0 });
});
