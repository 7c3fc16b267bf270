import { expect, test } from '@jest/globals';
import { comebackShare, waysToGo } from './worth.js';

test('the share that comes back leans on one in twenty until there are many jobs', () => {
  expect(comebackShare({ handedOver: 0, cameBack: 0 })).toBe(1 / 20);
  expect(comebackShare({ handedOver: 1000, cameBack: 200 })).toBeCloseTo(0.2, 2);
  expect(comebackShare({ handedOver: 5, cameBack: 5 })).toBeLessThan(0.3);
});

test('ways to go are proposed against what is planned; none comes back more often than always', () => {
  const [planned, cheaper] = waysToGo(100_000, 0.3);
  expect(planned).toMatchObject({ way: 'as planned', costMinor: 100_000, comeback: 0.3, comebackMinor: 40_000 });
  expect(cheaper).toMatchObject({ way: 'cheaper now', costMinor: 45_000, comeback: 1 });
});
