import { named } from '../library.test-kit.js';
import { writeLineYaml } from '../reading/yaml.js';
import { lineIssues } from './line-check.js';
import { describe, expect, test } from '@jest/globals';

const nuts = named('th6').joints.find(({ ref }) => ref === 'wheel-nuts')!;
const written = writeLineYaml(nuts);
const check = (text: string): readonly { readonly path: string; readonly line: number }[] => lineIssues('joints', text);
const lineOf = (text: string, words: string): number => text.split('\n').findIndex((line) => line.includes(words)) + 1;

describe('a line that is written as YAML', () => {
  test('is right as it came out of the sheet', () => {
    expect(check(written)).toEqual([]);
  });

  test('is no YAML where it breaks off', () => {
    const broken = `${written}pattern2: {`;
    expect(check(broken)[0]!.line).toBeGreaterThanOrEqual(lineOf(broken, 'pattern2'));
  });

  test('says which field is wrong, on its own line', () => {
    const wrong = written.replace(/hand: right/u, 'hand: upward');
    expect(check(wrong)).toMatchObject([{ path: 'hand', line: lineOf(wrong, 'upward') }]);
    const unknown = `${written}colour: red\n`;
    expect(check(unknown)).toMatchObject([{ path: 'colour', message: 'is not known here', line: lineOf(unknown, 'colour') }]);
  });

  test('says what is missing at what it is missing from', () => {
    const missing = written.replace(/^thread: .*\n/mu, '');
    expect(check(missing)).toMatchObject([{ path: 'thread', line: 1 }]);
  });
});
