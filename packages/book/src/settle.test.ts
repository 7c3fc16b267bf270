import { expect, test } from '@jest/globals';
import { toSettle } from './settle.js';

const tryOf = (verdict: string, moment: string, accepted?: string): object => ({ entry: { payload: { moment } }, verdict, accepted });
const part = (name: string, verdict: string, entry?: object): object => ({ part: { name }, because: `${name} is near`, verdict, entry });
const step = (kind: string, done: boolean): object => ({ step: { stage: 'prove', title: kind, record: { kind } }, done });

const state = (rest: object): never => ({ stage: 'prove', settings: [], decisions: [], steps: [step('sign', true)], ...rest }) as never;

test('a setting that stayed unsure is the foreman’s, one that was accepted or is not locked yet is not', () => {
  const settings = [
    { setting: { name: 'End play' }, last: tryOf('unsure', 'locked') },
    { setting: { name: 'Preload' }, last: tryOf('unsure', 'locked', 'seen by me') },
    { setting: { name: 'Backlash' }, last: tryOf('unsure', 'now') },
  ];
  expect(toSettle(state({ settings }))).toEqual(['End play is unsure: accept it or set it again']);
});

test('a part in doubt waits until somebody decided', () => {
  const decisions = [part('Spindle', 'unsure'), part('Bore', 'unsure', { id: 'decided' }), part('Cap', 'out')];
  expect(toSettle(state({ decisions }))).toEqual(['Spindle: Spindle is near']);
});

test('a signature is due when it is the next act, and not before', () => {
  expect(toSettle(state({ steps: [step('tick', true), step('sign', false)] }))).toEqual(['Waits for a signature']);
  expect(toSettle(state({ steps: [step('tick', false), step('sign', false)] }))).toEqual([]);
});
