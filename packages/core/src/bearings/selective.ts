import { mm } from '../quantity/write.js';
import { refuse, type Result } from '../working/issues.js';
import { isInside, noneWords, type Ends } from './shelf-field.js';

/** A ring or plate that comes in steps. */
export interface Choice {
  readonly thickness: number;
  readonly gives: number;
  readonly inside: boolean;
}

/**
 * Of those on the shelf the one that leaves nearest to the middle of the window, and the others; refuses
 * where none of them lands inside.
 *
 * @param room mm that the one fills; what it leaves of it is judged
 */
export function selective(sizes: readonly number[], window: Ends, room: number): Result<readonly [Choice, ...Choice[]]> {
  const bad = sizes.findIndex((size) => size <= 0);
  if (bad !== -1) return refuse({ code: 'too-small', field: 'sizes', received: mm(sizes[bad]!), bound: 'more than 0 mm' });
  const aim = (window.from + window.to) / 2;
  const [best, ...others] = sizes
    .map((thickness): Choice => ({ thickness, gives: room - thickness, inside: isInside(room - thickness, window) }))
    .toSorted((one, other) => Math.abs(one.gives - aim) - Math.abs(other.gives - aim));
  if (best?.inside) return { ok: true, value: [best, ...others] };
  const nearest = best && `${mm(best.thickness)}, ${best.gives < 0 ? `is ${mm(-best.gives)} too thick` : `leaves ${mm(best.gives)}`}`;
  return refuse({
    code: 'none-will-do',
    field: 'sizes',
    received: 'them',
    bound: noneWords(nearest, { from: room - window.to, to: room - window.from }, 'thick'),
  });
}

export const CHOICE_COLUMNS = [
  { name: 'thickness', label: 'thickness', quantity: 'length' },
  { name: 'gives', label: 'gives', quantity: 'length' },
  { name: 'inside', label: 'in the window', quantity: 'yes-no' },
] as const;
