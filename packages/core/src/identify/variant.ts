import { QUANTITIES, type Quantity } from '../quantity/units.js';
import { parseQuantity } from '../quantity/parse.js';
import type { Row } from '../working/describe.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Issue, type Result } from '../working/issues.js';
import { rankCandidates, rankQuestions, tellsApart, type Candidate, type Found, type Tells } from './candidates.js';

/** From this chance on one variant is named. */
const SURE = 0.9;

/**
 * Which variant is it, and what should be looked at next?
 *
 * Chances by Bayes' rule, all alike at first. A figure x with uncertainty u against v ± t counts
 * exp(−½((|x − v| − t)/u)²) outside the tolerance and 1 inside; a word counts 1 or 0.02; what a
 * variant does not say counts one half. The next question is the one whose answer takes most off
 * the entropy H = −Σ p·log2 p. One is named from a chance of 90 %.
 *
 * Example: 133 mm between through bolts is the larger of two alternators.
 */
export const variant = defineWorking({
  id: 'identify.variant',
  aliases: ['alternator.identify'],
  title: 'Which of these is it?',
  area: 'identify',
  inputs: [
    {
      kind: 'table',
      name: 'variants',
      label: 'What is known of each',
      fewest: 1,
      most: 2000,
      columns: [
        { name: 'variant', label: 'Variant', quantity: 'text' },
        { name: 'feature', label: 'Feature', quantity: 'text' },
        { name: 'is', label: 'Is', quantity: 'text' },
        { name: 'within', label: 'Either way', quantity: 'text' },
      ],
      help: 'One row for each thing that tells: a figure with its unit and tolerance, or a word with "word" as the tolerance.',
    },
    {
      kind: 'table',
      name: 'found',
      label: 'What was found',
      most: 100,
      optional: true,
      columns: [
        { name: 'feature', label: 'Feature', quantity: 'text' },
        { name: 'is', label: 'Is', quantity: 'text' },
        { name: 'u', label: 'Uncertainty', quantity: 'text' },
      ],
      help: 'A figure with its unit and uncertainty, or a word with "word" as the uncertainty.',
    },
  ],
  outputs: [
    { kind: 'text', name: 'variant', label: 'It is', longest: 200, optional: true, help: 'Named from a chance of 90 % on.' },
    { kind: 'text', name: 'ask', label: 'Look next at', longest: 200, optional: true, help: 'The most telling thing not looked at yet.' },
    {
      kind: 'text',
      name: 'alike',
      label: 'Cannot be told apart',
      longest: 400,
      optional: true,
      help: 'Variants on which nothing differs.',
    },
    {
      kind: 'table',
      name: 'chances',
      label: 'Chances',
      columns: [
        { name: 'variant', label: 'Variant', quantity: 'text' },
        { name: 'chance', label: 'Chance', quantity: 'ratio' },
      ],
      help: 'The likeliest first.',
    },
    {
      kind: 'table',
      name: 'questions',
      label: 'What each question would tell',
      columns: [
        { name: 'feature', label: 'Feature', quantity: 'text' },
        { name: 'bits', label: 'Bits', quantity: 'ratio' },
      ],
      help: 'What the answer takes off the doubt, on average.',
    },
  ],
  sources: [
    { kind: 'derivation', document: 'Bayes’ rule with equal chances at first', for: 'the chances' },
    {
      kind: 'handbook',
      document: 'C. E. Shannon, A Mathematical Theory of Communication',
      edition: '1948',
      for: 'the gain of a question',
      fromMemory: true,
    },
    { kind: 'common practice', document: 'Units of one make that look alike are told apart by measuring and counting', for: 'the example' },
  ],
  cautions: [],
  example: {
    variants: [
      { variant: 'larger', feature: 'case length', is: '6 in', within: '0.06 in' },
      { variant: 'smaller, early', feature: 'case length', is: '5 3/8 in', within: '0.06 in' },
      { variant: 'smaller, late', feature: 'case length', is: '5 3/8 in', within: '0.06 in' },
      { variant: 'smaller, early', feature: 'rear windows', is: 'seven', within: 'word' },
      { variant: 'smaller, late', feature: 'rear windows', is: 'eleven', within: 'word' },
    ],
    found: [{ feature: 'case length', is: '136.4 mm', u: '0.5 mm' }],
  },
  compute(input): Result<{
    variant: string | undefined;
    ask: string | undefined;
    alike: string | undefined;
    chances: readonly Row[];
    questions: readonly Row[];
  }> {
    const issues: Issue[] = [];
    const read = (text: string, other: string, field: string): Tells | Found => {
      if (other.trim().toLowerCase() === 'word') return { word: text };
      const figure = anyQuantity(text, field);
      const around = anyQuantity(other, field.replace(/\.\w+$/u, field.startsWith('found') ? '.u' : '.within'));
      for (const side of [figure, around]) if ('code' in side) issues.push(side);
      return { figure: 'base' in figure ? figure.base : Number.NaN, within: baseOr(around), u: baseOr(around) };
    };
    const tells = new Map<string, Map<string, Tells>>();
    for (const [index, row] of input.variants.entries()) {
      const own = tells.get(String(row['variant'])) ?? new Map<string, Tells>();
      if (own.has(String(row['feature'])))
        issues.push({
          code: 'said-twice',
          field: `variants[${index}].feature`,
          received: `${String(row['variant'])}, ${String(row['feature'])}`,
        });
      own.set(String(row['feature']), read(String(row['is']), String(row['within']), `variants[${index}].is`) as Tells);
      tells.set(String(row['variant']), own);
    }
    const found = new Map<string, Found>();
    for (const [index, row] of (input.found ?? []).entries())
      found.set(String(row['feature']), read(String(row['is']), String(row['u']), `found[${index}].is`) as Found);
    if (issues.length > 0) return refuse(...issues);
    const candidates: Candidate[] = [...tells].map(([id, own]) => ({ id, tells: own }));
    const chances = rankCandidates(candidates, found);
    const questions = rankQuestions(candidates, found, () => 0);
    const [best] = chances;
    return ok({
      variant: best && best.chance >= SURE ? best.id : undefined,
      ask: questions[0]?.feature,
      alike: alikeWords(candidates),
      chances: chances.map(({ id, chance }) => ({ variant: id, chance })),
      questions: questions.map(({ feature, bits }) => ({ feature, bits })),
    });
  },
  explain(input, output) {
    return [
      {
        say: `${(input.found ?? []).length} findings against ${output.chances.length} variants, all alike at first.`,
        formula: 'p = Π likelihood / Σ',
        numbers: output.chances.map((row) => `${String(row['variant'])} ${(Number(row['chance']) * 100).toFixed(1)} %`).join(', '),
      },
      output.ask
        ? {
            say: `Most would be learnt from: ${output.ask}.`,
            formula: 'H = −Σ p·log2 p',
            numbers: output.questions.map((row) => `${String(row['feature'])} ${Number(row['bits']).toFixed(2)} bit`).join(', '),
          }
        : { say: 'No question that is left tells anything more.' },
    ];
  },
});

function baseOr(read: Issue | { base: number }): number {
  return 'base' in read ? read.base : Number.NaN;
}

/** A figure of whatever quantity its unit belongs to; a bare number is a count. */
function anyQuantity(text: string, field: string): Issue | { base: number } {
  let first: Issue | undefined;
  const order: readonly Quantity[] = ['count', ...QUANTITIES];
  for (const quantity of order) {
    const parsed = parseQuantity(text, quantity, field);
    if (parsed.ok) return { base: parsed.quantity.base };
    first ??= parsed.issue;
  }
  return { ...(first ?? { code: 'required', field }), code: 'not-a-figure' };
}

function alikeWords(candidates: readonly Candidate[]): string | undefined {
  const pairs = candidates.flatMap((a, index) =>
    candidates.slice(index + 1).flatMap((b) => (tellsApart(a, b, () => 0).length === 0 ? [`${a.id} and ${b.id}`] : [])),
  );
  return pairs.length > 0 ? pairs.slice(0, 5).join('; ') : undefined;
}
