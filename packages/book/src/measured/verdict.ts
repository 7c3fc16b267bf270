import type { UsedWorking } from '../entries/kept.js';

/** The verdict kept with an entry that was judged; what a nut is advised is no verdict on the reading. */
export function verdictOf({ working }: { readonly working: UsedWorking | null }): 'in' | 'out' | 'unsure' | undefined {
  const verdict = working?.id === 'bearing.nut' ? undefined : working?.output['verdict'];
  return verdict === 'in' || verdict === 'out' || verdict === 'unsure' ? verdict : undefined;
}
