import { readFileSync, readdirSync } from 'node:fs';
import { expect, test } from '@jest/globals';

/** Bootstrap asks for it and sets it only where a theme wants it. */
const LEFT_OPEN = '--bs-body-text-align';
const ASSETS = new URL('../apps/web/dist/assets/', import.meta.url);

test('every variable that a built stylesheet asks for is set by one of them', () => {
  const css = readdirSync(ASSETS)
    .filter((name) => name.endsWith('.css'))
    .map((name) => readFileSync(new URL(name, ASSETS), 'utf8'))
    .join('\n');
  const all = (pattern: RegExp): Set<string> => new Set([...css.matchAll(pattern)].map(([, name = '']) => name));
  const set = all(/(--[\w-]+)\s*:/gu);
  const asked = all(/var\((--[\w-]+)\)/gu);
  expect(asked.size).toBeGreaterThan(50);
  expect([...asked].filter((name) => !set.has(name))).toEqual([LEFT_OPEN]);
});
