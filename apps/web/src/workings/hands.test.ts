import { workings } from '@jubb/core';
import { expect, test } from '@jest/globals';
import { HANDS, questionsOf } from './hands.ts';

const ALL = workings.list();

test('every working is asked for with something in the hand', () => {
  const found = new Set(HANDS.flatMap((hand) => questionsOf(hand, ALL, []).map(({ id }) => id)));
  expect(ALL.filter(({ id }) => !found.has(id)).map(({ id }) => id)).toEqual([]);
});

test('no hand is empty, and names only workings that there are', () => {
  for (const hand of HANDS) {
    expect(questionsOf(hand, ALL, []).length).toBeGreaterThan(0);
    for (const id of hand.also ?? []) expect(ALL.map((one) => one.id)).toContain(id);
  }
});

test('what was asked last comes first, the rest keeps its order', () => {
  const screw = HANDS.find(({ id }) => id === 'screw')!;
  const plain = questionsOf(screw, ALL, []).map(({ id }) => id);
  const last = plain.at(-1)!;
  const third = plain[2]!;
  const sorted = questionsOf(screw, ALL, [last, 'gear.ratio', third]).map(({ id }) => id);
  expect(sorted).toEqual([last, third, ...plain.filter((id) => id !== last && id !== third)]);
});
