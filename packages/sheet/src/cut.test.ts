import { cutText } from './cut.js';
import { expect, test } from '@jest/globals';

test.each([
  ['ring', 10, 'ring'],
  ['ring', 2, 'ri'],
  ['a🔩b', 2, 'a'],
  ['a🔩b', 3, 'a🔩'],
  ['🔩🔩', 1, ''],
])('%j cut to %d ends with a whole character', (text, most, cut) => {
  expect(cutText(text, most)).toBe(cut);
  // In a pattern of characters only a half one is found.
  expect(cutText(text, most)).not.toMatch(/[\uD800-\uDFFF]/u);
});
