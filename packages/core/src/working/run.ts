import type { Drawing, ExplainStep, Field, ValuesOf, Working } from './describe.js';
import { readInput } from './input.js';
import type { Issue } from './issues.js';

/** What came of a working; its own fields are typed where it is known which one it is. */
export interface RunOf<I, O> {
  readonly working: string;
  /** As read: base units, defaults filled in. */
  readonly input: I;
  readonly output: O;
  readonly steps: readonly ExplainStep[];
  readonly drawing?: Drawing;
}

export type ResultOf<I, O> = { readonly ok: true; readonly run: RunOf<I, O> } | { readonly ok: false; readonly issues: readonly Issue[] };

type Values = Readonly<Record<string, unknown>>;
export type WorkingRun = RunOf<Values, Values>;
export type RunResult = ResultOf<Values, Values>;

/** Runs a working on input that nobody looked at yet. */
export function runWorking<I extends readonly Field[], O extends readonly Field[]>(
  working: Working<I, O>,
  raw: unknown,
): ResultOf<ValuesOf<I>, ValuesOf<O>> {
  const read = readInput(working.inputs, raw);
  if (!read.ok) return { ok: false, issues: read.issues };
  // Read by the very fields that the types come from.
  const input = read.value as ValuesOf<I>;
  const computed = working.compute(input);
  if (!computed.ok) return { ok: false, issues: computed.issues.map((issue) => ({ label: labelOf(working, issue.field), ...issue })) };
  const field = working.inputs[0]?.name ?? 'input';
  const overflow: ResultOf<ValuesOf<I>, ValuesOf<O>> = {
    ok: false,
    issues: [{ code: 'overflows', field, label: labelOf(working, field) }],
  };
  if (!isFinite(computed.value)) return overflow;
  const steps = working.explain(input, computed.value);
  const drawing = working.draw?.(input, computed.value);
  if (!isFinite(steps) || !isFinite(drawing)) return overflow;
  return {
    ok: true,
    run: { working: working.id, input, output: computed.value, steps, ...(drawing === undefined ? {} : { drawing }) },
  };
}

/** No figure in it, however deep or written out, is infinite or none: figures can be too small, or too large together. */
function isFinite(part: unknown): boolean {
  if (typeof part === 'number') return Number.isFinite(part);
  if (typeof part === 'string') return !/(?:^|[^\p{L}])(?:NaN|-?Infinity)(?:$|[^\p{L}])/u.test(part);
  if (typeof part !== 'object' || part === null) return true;
  return Object.values(part).every(isFinite);
}

function labelOf(working: Pick<Working, 'inputs'>, name: string): string {
  return working.inputs.find((field) => field.name === name)?.label ?? name;
}
