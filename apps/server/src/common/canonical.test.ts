import { expect, test } from '@jest/globals';
import canonicalize from 'canonicalize';
import fc from 'fast-check';
import { canonicalJson } from './canonical.js';

test('what came as JSON is written as the reference library for RFC 8785 writes it', () => {
  // The door lets no half character in, which the reference refuses.
  const json = fc.json({ stringUnit: 'binary', maxDepth: 6 }).map((text) => JSON.parse(text) as unknown);
  fc.assert(
    fc.property(json, (value) => {
      expect(canonicalJson(value)).toBe(canonicalize(value));
    }),
    { numRuns: 2000 },
  );
});

test('the examples of RFC 8785, 3.2.2 and 3.2.3', () => {
  const numbers = {
    numbers: [Number('333333333.33333329'), 1e30, 4.5, 2e-3, 0.000000000000000000000000001],
    literals: [null, true, false],
  };
  expect(canonicalJson(numbers)).toBe('{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27]}');
  const names = { '\u20ac': 1, '\r': 2, '\ufb33': 3, '1': 4, '\u{1f600}': 5, '\u0080': 6, '\u00f6': 7 };
  expect(Object.values(JSON.parse(canonicalJson(names)) as object)).toHaveLength(7);
  expect([...canonicalJson(names).matchAll(/:(\d)/gu)].map(([, n]) => n)).toEqual(['2', '4', '6', '7', '1', '5', '3']);
});
