import { mm } from '../quantity/write.js';
import type { ListField } from '../working/describe.js';
import { refuse, type Result } from '../working/issues.js';

/** A gap read at three places: what is square reads alike. */
export const GAPS_FIELD = {
  kind: 'list',
  name: 'gaps',
  label: 'Gap, at three places',
  quantity: 'length',
  min: 0,
  max: 20,
  fewest: 3,
  most: 12,
  help: 'Feeler or dial, a third of a turn apart.',
} as const satisfies ListField;

/** Over this the parts do not sit square, mm. Common practice. */
const CROOKED_MM = 0.15;

/**
 * Mean of the gaps; refuses those that differ so much that something is not seated.
 *
 * @param wide mm of a window that every place must land in, where it is one
 */
export function meanGap(gaps: readonly number[], wide = CROOKED_MM): Result<number> {
  const apart = Math.max(...gaps) - Math.min(...gaps);
  if (apart > Math.min(wide, CROOKED_MM))
    return refuse({
      code: 'cannot-be',
      field: GAPS_FIELD.name,
      label: GAPS_FIELD.label,
      received: gaps.map((gap) => mm(gap)).join(', '),
      bound: `they differ by ${mm(apart)}: something does not sit square, dirt or a burr; seat it and read again`,
    });
  return { ok: true, value: gaps.reduce((sum, gap) => sum + gap, 0) / gaps.length };
}
