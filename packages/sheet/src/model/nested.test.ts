import { expect, test } from '@jest/globals';
import { validated } from '../given/index.js';
import { Step } from './file.js';

const step = { ref: 'off', stage: 'strip', title: 'Off', act: 'Off.' };
const said = (record: unknown): readonly string[] =>
  validated(Step, { ...step, record }).issues.map(({ path, message }) => `${path} ${message}`);

test.each([
  ['missing', undefined, 'record is missing'],
  ['nothing', null, 'record is missing'],
  ['an empty list', [], 'record must be named fields'],
  ['a list of what it should be', [{ kind: 'tick' }], 'record must be named fields'],
  ['a word', 'tick', 'record must be named fields'],
])('a thing of named fields that is %s', (_, record, words) => {
  expect(said(record)).toContain(words);
});

test('one that is as it should be', () => {
  expect(said({ kind: 'tick' })).toEqual([]);
});
