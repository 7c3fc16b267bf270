import { mm } from '../quantity/write.js';
import { refuse, type Result } from '../working/issues.js';

/** A ring or plate that comes in steps. */
export interface Choice {
  readonly thickness: number;
  readonly gives: number;
  readonly inside: boolean;
}

/**
 * Of those on the shelf the one that gives nearest to the middle of the window.
 *
 * @param givesAt what is left with a thickness, mm
 */
export function selective(
  sizes: readonly number[],
  window: { readonly from: number; readonly to: number },
  givesAt: (thickness: number) => number,
): Result<readonly Choice[]> {
  const bad = sizes.findIndex((size) => size <= 0);
  if (bad !== -1) return refuse({ code: 'too-small', field: 'sizes', received: mm(sizes[bad]!), bound: 'more than 0 mm' });
  const aim = (window.from + window.to) / 2;
  const choices = sizes
    .map((thickness): Choice => {
      const gives = givesAt(thickness);
      return { thickness, gives, inside: gives >= window.from - 1e-9 && gives <= window.to + 1e-9 };
    })
    .toSorted((one, other) => Number(other.inside) - Number(one.inside) || Math.abs(one.gives - aim) - Math.abs(other.gives - aim));
  return { ok: true, value: choices };
}

export const CHOICE_COLUMNS = [
  { name: 'thickness', label: 'thickness', quantity: 'length' },
  { name: 'gives', label: 'gives', quantity: 'length' },
  { name: 'inside', label: 'in the window', quantity: 'yes-no' },
] as const;

export const FITS_VERDICT = {
  kind: 'choice',
  name: 'verdict',
  label: 'Verdict',
  choices: [
    { id: 'in', label: 'inside the window' },
    { id: 'out', label: 'none of them lands inside: another size has to come' },
  ],
  help: 'Of what the best one gives.',
} as const;
