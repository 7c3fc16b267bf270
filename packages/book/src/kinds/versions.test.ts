import { expect, test } from '@jest/globals';
import { validated } from '@jubb/sheet/given';
import { readFileSync } from 'node:fs';
import { book, demoSheet } from '../book.test-kit.js';
import type { EntryKind } from '../entries/kept.js';
import { defineKind, type Kind } from './define-kind.js';
import { broughtUp, ENTRY_KINDS, entryWords, kindOf, readUp } from './registry.js';

/** An entry of each kind as it was kept in each version that there was, and as it was said. Lines are added here, never changed. */
const KEPT = JSON.parse(readFileSync(new URL('kept.fixture.json', import.meta.url), 'utf8')) as {
  readonly kind: EntryKind;
  readonly version: number;
  readonly payload: object;
  readonly said: string;
}[];
const axle = demoSheet('ostrel-d44-drive-axle');

test('of every kind there is an entry kept in every version', () => {
  const versions = ENTRY_KINDS.flatMap((kind) => Array.from({ length: kindOf(kind).version }, (_, at) => `${kind} ${at + 1}`));
  expect(KEPT.map(({ kind, version }) => `${kind} ${version}`).toSorted()).toEqual(versions.toSorted());
});

test.each(KEPT.map((kept) => [kept.kind, kept.version, kept] as const))('%s of version %d is read today', (kind, version, kept) => {
  const [entry] = book(axle, { kind, payload: kept.payload });
  const today = readUp({ ...entry!, version });
  expect(validated(kindOf(kind).payload as new () => object, today.payload).issues).toEqual([]);
  expect(entryWords(today, axle)).toBe(kept.said);
});

/** A kind that took two steps: a count in dozens became one in pieces, and got a name. */
const counted: Pick<Kind<EntryKind>, 'version' | 'up'> = {
  version: 3,
  up: {
    1: ({ dozens, ...rest }) => ({ ...rest, count: Number(dozens) * 12 }),
    2: (old) => ({ ...old, name: 'screws' }),
  },
};

test.each([
  [1, { dozens: 2 }, { count: 24, name: 'screws' }],
  [2, { count: 7 }, { count: 7, name: 'screws' }],
  [3, { count: 7, name: 'nuts' }, { count: 7, name: 'nuts' }],
])('a payload of version %d comes up to today’s', (version, kept, today) => {
  expect(broughtUp(counted, version, kept)).toEqual(today);
});

test('a kind without a way up from an older version is not defined', () => {
  expect(() => defineKind({ ...kindOf('note'), version: 2 })).toThrow('no way up from version 1');
});
