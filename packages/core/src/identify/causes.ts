/** How strongly a finding speaks, as the factor it puts on the odds of a cause. Common practice, not measured. */
export const SPEAKS = { 'strongly for': 8, for: 3, against: 1 / 3, 'strongly against': 1 / 8 } as const;
export type Speaks = keyof typeof SPEAKS;

export interface CauseFacts {
  readonly id: string;
  /** How often it stands behind what is complained of: 1 seldom, 3 often. */
  readonly weight: number;
  /** What each check that was done says of it. */
  readonly signs: readonly { readonly check: string; readonly speaks: Speaks }[];
}

export interface LikelyCause {
  readonly id: string;
  /** Between 0 and 1; all of them make 1. */
  readonly chance: number;
  readonly before: number;
  /** What moved it, in the order of the checks. */
  readonly because: readonly { readonly check: string; readonly speaks: Speaks }[];
}

/**
 * Causes with their chances, the likeliest first: weight · Π factor, made to sum to 1. Taken as if
 * one cause were at work and the checks did not depend on each other, which is near enough to say
 * where to look first; it is no proof.
 */
export function rankCauses(causes: readonly CauseFacts[]): readonly LikelyCause[] {
  const score = ({ weight, signs }: CauseFacts): number => signs.reduce((product, { speaks }) => product * SPEAKS[speaks], weight);
  const total = causes.reduce((sum, cause) => sum + score(cause), 0);
  const before = causes.reduce((sum, { weight }) => sum + weight, 0);
  return causes
    .map((cause) => ({ id: cause.id, chance: score(cause) / total, before: cause.weight / before, because: cause.signs }))
    .toSorted((a, b) => b.chance - a.chance || a.id.localeCompare(b.id));
}
