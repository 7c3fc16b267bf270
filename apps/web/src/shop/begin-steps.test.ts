import type { BeginView } from '@jubb/wire';
import { expect, test } from '@jest/globals';
import { beginSteps } from './begin-steps.ts';

const EMPTY: BeginView = {
  ...{
    isPriced: false,
    people: 1,
    pins: 0,
    benches: 0,
    tools: 0,
    stock: 0,
    suppliers: 0,
    sheets: 0,
    drafts: 0,
    tablets: 1,
    jobs: 0,
    handedOver: 0,
  },
  ...{ isBackedUp: false, isRehearsed: false, isDemo: false },
};
const doneIn = (view: Partial<BeginView>): readonly string[] =>
  beginSteps({ ...EMPTY, ...view }, './jubb').flatMap(({ title, isDone }) => (isDone ? [title] : []));

test('of a shop that is just opened nothing is there', () => {
  expect(doneIn({})).toEqual([]);
  expect(beginSteps(EMPTY, './jubb').map(({ state }) => state)).toContain('1 person, 0 with a PIN');
});

test.each<[string, Partial<BeginView>, string]>([
  ['prices that somebody kept', { isPriced: true }, 'What an hour costs, and the tax'],
  ['a second person', { people: 2 }, 'Who works here'],
  ['a bench', { benches: 1 }, 'Benches and machines'],
  ['a tool', { tools: 1 }, 'The crib'],
  ['an approved sheet', { sheets: 1 }, 'Sheets of what comes in most'],
  ['a line in the stores', { stock: 1 }, 'The stores'],
  ['a supplier', { suppliers: 1 }, 'Whom you order from'],
  ['a second tablet', { tablets: 2 }, 'A tablet at every bench'],
  ['a backup that was brought back', { isBackedUp: true, isRehearsed: true }, 'A backup on another disk'],
  ['a unit handed over', { jobs: 1, handedOver: 1 }, 'The first unit'],
])('%s is one thing less', (_, view, title) => {
  expect(doneIn(view)).toEqual([title]);
});

test('a draft is no sheet to work by yet, a backup that was never brought back is none: the way there changes', () => {
  expect(doneIn({ drafts: 3, isBackedUp: true, jobs: 1 })).toEqual([]);
  const of = (view: Partial<BeginView>, title: string): string | undefined =>
    beginSteps({ ...EMPTY, ...view }, './jubb').find((step) => step.title === title)?.go?.to;
  expect(of({}, 'Sheets of what comes in most')).toBe('#examples');
  expect(of({ drafts: 1 }, 'Sheets of what comes in most')).toBe('/sheets');
  expect(of({}, 'The first unit')).toBe('/jobs/new');
  expect(of({ jobs: 1 }, 'The first unit')).toBe('/jobs');
});
