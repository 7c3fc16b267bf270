import { expect, test } from '@jest/globals';
import { find } from '@jubb/sheet';
import { book, demoSheet, type BookLine } from '../book.test-kit.js';
import { jobState } from '../state.js';

const box = demoSheet('harrowmere-pg540-pto-gearbox');
const off = (step: string, part: string): BookLine => ({
  kind: 'came-off',
  step,
  payload: { part, name: part, count: find(box.steps, step)!.record.counts!.find((line) => line.part === part)!.count },
});
const all = (step: string): readonly BookLine[] => find(box.steps, step)!.record.counts!.map(({ part }) => off(step, part));

test('a part that two steps count is counted at each of them, and both are in the ledger', () => {
  const state = jobState(box, book(box, ...all('input-shaft-out'), ...all('output-shaft-out')));
  for (const ref of ['input-shaft-out', 'output-shaft-out'])
    expect(state.steps.find(({ step }) => step.ref === ref)).toMatchObject({ done: true });
  expect(state.reconcile.find(({ part }) => part === 'rings')?.expected).toBe(2);
  // What came off at the one is not what the other asks for.
  const half = jobState(box, book(box, ...all('input-shaft-out')));
  expect(half.steps.find(({ step }) => step.ref === 'output-shaft-out')).toMatchObject({ done: false, progress: { done: 0, total: 6 } });
  expect(half.steps.find(({ step }) => step.ref === 'input-shaft-out')?.problem).toBeUndefined();
});
