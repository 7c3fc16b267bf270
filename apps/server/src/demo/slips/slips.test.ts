import { describe, expect, test } from '@jest/globals';
import { CATALOGUE } from './catalogue.js';
import { cleanPlays, cribToPlay, sheetsToPlay, slipsOn } from './slips.js';

const tools = cribToPlay();
const sheets = sheetsToPlay((name) => /air-compressor|drive-axle|brake-cylinder/u.test(name));

test('there are many kinds of mistake, each once', () => {
  expect(CATALOGUE.length).toBeGreaterThanOrEqual(60);
  expect(new Set(CATALOGUE.map(({ id }) => id)).size).toBe(CATALOGUE.length);
});

describe.each(sheets.map(([name, sheet]) => [name, sheet] as const))('%s', (name, sheet) => {
  test('a job where nothing goes wrong is not stopped', () => {
    expect(cleanPlays([[name, sheet]], tools, 3)).toEqual([]);
  });

  test('what has no reason to pass does not', () => {
    const outcomes = slipsOn(sheet, tools);
    const passed = outcomes.filter(([{ passes }, outcome]) => outcome === 'passed' && passes === undefined);
    expect(passed.map(([{ id }]) => id)).toEqual([]);
    const possible = outcomes.filter(([, outcome]) => outcome !== 'not possible');
    expect(possible.length).toBeGreaterThan(50);
    for (const [, outcome] of possible)
      if (outcome !== 'passed' && outcome !== 'not possible') expect(outcome.words.length).toBeGreaterThan(2);
  });
});
