import { judge } from '../measuring/verdict.js';
import type { Verdict } from '../measuring/verdict-field.js';
import { formatQuantity } from '../quantity/format.js';
import type { ExplainStep } from '../working/describe.js';
import { refuse, type Result } from '../working/issues.js';

interface Wearing {
  readonly fresh: number;
  readonly limit: number;
  readonly now: number;
  readonly hours?: number | undefined;
  readonly toolU: number;
  /** Which way wear goes: a gap that closes, a brush that gets shorter; play that grows. */
  readonly goes: 'up' | 'down';
}

export interface Worn {
  readonly verdict: Verdict;
  readonly used: number;
  readonly hoursLeft: number | undefined;
}

/** Inputs that every wear working asks, after what is measured. */
export const WEAR_INPUTS = [
  {
    kind: 'number',
    name: 'hours',
    label: 'Has run',
    quantity: 'time',
    above: 0,
    max: 3.6e9,
    optional: true,
    help: 'Since it was new; "4200 h".',
  },
  {
    kind: 'number',
    name: 'toolU',
    label: 'Uncertainty of the tool',
    symbol: 'u',
    quantity: 'length',
    min: 0,
    max: 10,
    default: 0.02,
    help: 'Standard uncertainty (k = 1).',
  },
] as const;

export const WEAR_OUTPUTS = [
  { kind: 'number', name: 'used', label: 'Used up', quantity: 'ratio', help: 'Of the wear that is allowed; over 1 is past the limit.' },
  {
    kind: 'number',
    name: 'hoursLeft',
    label: 'Left at that rate',
    quantity: 'time',
    optional: true,
    help: 'Until the limit, when it goes on as it did.',
  },
] as const;

/**
 * Wear between new and limit: used = (now − new)/(limit − new), hours left = hours·(1 − used)/used. Refuses a limit
 * equal to new, or on its other side: then the two were changed over.
 */
export function wornBy({ fresh, limit, now, hours, toolU, goes }: Wearing): Result<Worn> {
  if (fresh === limit) return refuse({ code: 'limit-is-new', field: 'limit', received: formatQuantity(limit, 'length') });
  if (limit > fresh !== (goes === 'up'))
    return refuse({
      code: goes === 'up' ? 'too-small' : 'too-large',
      field: 'limit',
      received: formatQuantity(limit, 'length'),
      bound: `${goes === 'up' ? 'more' : 'less'} than new, ${formatQuantity(fresh, 'length')}: were the two changed over?`,
    });
  const used = (now - fresh) / (limit - fresh);
  const verdict = judge(now, toolU, limit > fresh ? { upper: limit } : { lower: limit });
  const hoursLeft = hours === undefined || used <= 0 ? undefined : Math.max(0, (hours * (1 - used)) / used);
  return { ok: true, value: { verdict, used, hoursLeft } };
}

export function explainWear(worn: Pick<Worn, 'used' | 'hoursLeft' | 'verdict'>, words: string): readonly ExplainStep[] {
  return [
    { say: words, formula: '(now − new) / (limit − new)', numbers: formatQuantity(worn.used, 'ratio', '%', { to: 1 }) },
    ...(worn.hoursLeft === undefined
      ? []
      : [{ say: 'If it goes on as it did.', formula: 'hours · (1 − used) / used', numbers: formatQuantity(worn.hoursLeft, 'time', 'h') }]),
    { say: `Verdict: ${worn.verdict}.` },
  ];
}

export const WEAR_SOURCE = { kind: 'derivation', document: 'wear in proportion to running time', for: 'hours left' } as const;
