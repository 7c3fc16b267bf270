/** The three words of every judgement, as the output field of a working. */
export const VERDICT = {
  kind: 'choice',
  name: 'verdict',
  label: 'Verdict',
  choices: [
    { id: 'in', label: 'in' },
    { id: 'out', label: 'out' },
    { id: 'unsure', label: 'unsure' },
  ],
  help: 'In, out, or unsure.',
} as const;

export type Verdict = (typeof VERDICT)['choices'][number]['id'];

/** Several judgements as one: out when one is out, unsure when one is unsure. */
export function worstOf(verdicts: readonly Verdict[]): Verdict {
  if (verdicts.includes('out')) return 'out';
  return verdicts.includes('unsure') ? 'unsure' : 'in';
}
