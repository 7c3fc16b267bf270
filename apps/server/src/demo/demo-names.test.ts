import { expect, test } from '@jest/globals';
import { readFileSync, readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { CUSTOMERS, RECEIVERS } from './demo-fleet.js';
import { DEMO_PEOPLE, MORE_PEOPLE } from './demo-people.js';

const ROOT = fileURLToPath(new URL('../../../../', import.meta.url));
const PRODUCT = ['apps/web/src', 'apps/server/src', 'packages/sheet/src', 'packages/book/src', 'packages/wire/src', 'packages/core/src'];

test('nobody of the demo stands in the product: a shop of one’s own never meets them', () => {
  const people = [...DEMO_PEOPLE, ...MORE_PEOPLE].flatMap(([name, login]) => [...name.split(' '), login]);
  // Of a customer the word that names it; the others are what it does.
  const names = [...people, ...RECEIVERS.flatMap((name) => name.split(' ')), ...CUSTOMERS.map((name) => name.split(' ')[0]!)];
  expect(new Set(CUSTOMERS.map((name) => name.split(' ')[0])).size).toBe(CUSTOMERS.length);
  const sources = PRODUCT.flatMap((folder) =>
    readdirSync(`${ROOT}${folder}`, { recursive: true, encoding: 'utf8' })
      .filter((path) => /\.(?:tsx?|scss)$/u.test(path) && !/\.test(?:-kit)?\.ts$/u.test(path) && !/(?:^|\/)demo\//u.test(path))
      .map((path) => `${folder}/${path}`),
  );
  expect(sources.length).toBeGreaterThan(300);
  const word = new RegExp(`(?<![\\p{L}])(?:${names.join('|')})(?![\\p{L}])`, 'iu');
  expect(sources.filter((path) => word.test(readFileSync(`${ROOT}${path}`, 'utf8')))).toEqual([]);
});
