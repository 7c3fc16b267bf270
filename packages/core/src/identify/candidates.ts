/**
 * Which of several things is it? Bayes' rule over the candidates, one question at a time.
 * Reference for the measure of a question: C. E. Shannon, "A Mathematical Theory of
 * Communication", 1948 (entropy; the gain of a question is what it takes off it on average).
 */

/** What one candidate says of a feature: a figure with its tolerance, or a word. */
export type Tells = { readonly figure: number; readonly within: number } | { readonly word: string };

export interface Candidate {
  readonly id: string;
  /** By feature; a feature that is not there is not known of this candidate. */
  readonly tells: ReadonlyMap<string, Tells>;
}

/** What was found: a figure with its standard uncertainty, or a word. */
export type Found = { readonly figure: number; readonly u: number } | { readonly word: string };

export interface Ranked {
  readonly id: string;
  /** Between 0 and 1; all of them make 1. */
  readonly chance: number;
  /** Features that were found to be otherwise than it says. */
  readonly against: readonly string[];
}

export interface Question {
  readonly feature: string;
  /** What the answer takes off the doubt, on average; bits. */
  readonly bits: number;
}

/** An eye or a pen slips about as often as this. */
const SLIP = 0.02;
/** What goes this badly with a candidate speaks against it. */
const DOUBTFUL = 0.1;

/** How well what was found goes with what a candidate says: 1 as it should be, `SLIP` when it cannot be. */
function likelihood(tells: Tells | undefined, found: Found): number {
  if (!tells) return 0.5;
  if ('word' in tells) return 'word' in found && same(tells.word, found.word) ? 1 : SLIP;
  if (!('figure' in found)) return SLIP;
  const beyond = Math.max(0, Math.abs(found.figure - tells.figure) - tells.within);
  if (beyond === 0) return 1;
  return Math.max(SLIP, found.u > 0 ? Math.exp(-0.5 * (beyond / found.u) ** 2) : 0);
}

function same(a: string, b: string): boolean {
  return a.trim().toLowerCase() === b.trim().toLowerCase();
}

/** The candidates with their chances after what was found, the likeliest first. All begin alike. */
export function rankCandidates(candidates: readonly Candidate[], found: ReadonlyMap<string, Found>): readonly Ranked[] {
  const weights = candidates.map((candidate) =>
    [...found].reduce((weight, [feature, answer]) => weight * likelihood(candidate.tells.get(feature), answer), 1),
  );
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  return candidates
    .map(({ id, tells }, index) => ({
      id,
      chance: total > 0 ? (weights[index] ?? 0) / total : 1 / candidates.length,
      against: [...found].filter(([feature, answer]) => likelihood(tells.get(feature), answer) < DOUBTFUL).map(([feature]) => feature),
    }))
    .toSorted((a, b) => b.chance - a.chance);
}

/**
 * The questions not asked yet, the most telling first; those that tell nothing are left out.
 *
 * @param measureU standard uncertainty to expect of a measured feature, in its base unit
 */
export function rankQuestions(
  candidates: readonly Candidate[],
  found: ReadonlyMap<string, Found>,
  measureU: (feature: string) => number,
): readonly Question[] {
  const chances = new Map(rankCandidates(candidates, found).map(({ id, chance }) => [id, chance]));
  const features = new Set(candidates.flatMap(({ tells }) => [...tells.keys()]));
  const doubt = entropy([...chances.values()]);
  return (
    [...features]
      .filter((feature) => !found.has(feature))
      .map((feature) => ({ feature, bits: doubt - doubtAfter(feature, candidates, chances, measureU(feature)) }))
      .filter(({ bits }) => bits > LEAST_BITS)
      // Those that tell as much stay in the order in which they are named.
      .toSorted((a, b) => (Math.abs(b.bits - a.bits) < ALIKE_BITS ? 0 : b.bits - a.bits))
  );
}

/** A question that takes off less than this tells nothing. */
const LEAST_BITS = 0.02;
const ALIKE_BITS = 1e-6;

/** Doubt left on average: each candidate answers as it says of itself, as often as it is likely. */
function doubtAfter(feature: string, candidates: readonly Candidate[], chances: ReadonlyMap<string, number>, u: number): number {
  const answers = new Map<string, { answer: Found; chance: number }>();
  let silent = 0;
  for (const { id, tells } of candidates) {
    const chance = chances.get(id) ?? 0;
    const says = tells.get(feature);
    if (!says) {
      silent += chance;
      continue;
    }
    const answer: Found = 'word' in says ? { word: says.word } : { figure: says.figure, u };
    const key = 'word' in says ? says.word.toLowerCase() : String(says.figure);
    answers.set(key, { answer, chance: (answers.get(key)?.chance ?? 0) + chance });
  }
  let left = silent * entropy([...chances.values()]);
  for (const { answer, chance } of answers.values()) {
    const weights = candidates.map(({ id, tells }) => (chances.get(id) ?? 0) * likelihood(tells.get(feature), answer));
    const total = weights.reduce((sum, weight) => sum + weight, 0);
    if (total > 0) left += chance * entropy(weights.map((weight) => weight / total));
  }
  return left;
}

/** Bits of doubt in a spread of chances. */
export function entropy(chances: readonly number[]): number {
  return chances.reduce((sum, chance) => (chance > 0 ? sum - chance * Math.log2(chance) : sum), 0);
}

/** Features on which two candidates say different things, as far as a measurement could tell. */
export function tellsApart(a: Candidate, b: Candidate, measureU: (feature: string) => number): readonly string[] {
  return [...a.tells.keys()].filter((feature) => {
    const [one, other] = [a.tells.get(feature), b.tells.get(feature)];
    if (!one || !other) return false;
    if ('word' in one || 'word' in other) return !('word' in one && 'word' in other && same(one.word, other.word));
    return Math.abs(one.figure - other.figure) > one.within + other.within + 2 * measureU(feature);
  });
}
