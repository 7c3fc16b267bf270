import type { Drawing, ExplainStep, Field, Source, Working } from './describe.js';
import { readInput } from './input.js';
import { inputSchema } from './schema.js';
import type { Issue } from './issues.js';

export interface WorkingDescription {
  readonly id: string;
  readonly title: string;
  readonly area: string;
  readonly inputs: readonly Field[];
  readonly outputs: readonly Field[];
  readonly sources: readonly Source[];
  readonly cautions: readonly string[];
  readonly example: Readonly<Record<string, unknown>>;
  readonly schema: Readonly<Record<string, unknown>>;
}

export interface WorkingRun {
  readonly working: string;
  /** As read: base units, defaults filled in. */
  readonly input: Readonly<Record<string, unknown>>;
  readonly output: Readonly<Record<string, unknown>>;
  readonly steps: readonly ExplainStep[];
  readonly drawing?: Drawing;
}

export type RunResult = { readonly ok: true; readonly run: WorkingRun } | { readonly ok: false; readonly issues: readonly Issue[] };

// The registry holds workings of many shapes; each one's own types were checked where it was defined.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
type AnyWorking = Working<any, any>;

/** All workings by id. A duplicate id or alias is a programmer's mistake and throws. */
export class Registry {
  readonly #byId = new Map<string, AnyWorking>();
  readonly #all: readonly AnyWorking[];

  constructor(workings: readonly AnyWorking[]) {
    this.#all = workings;
    for (const working of workings) {
      for (const id of [working.id, ...(working.aliases ?? [])]) {
        if (this.#byId.has(id)) throw new Error(`working id used twice: ${id}`);
        this.#byId.set(id, working);
      }
    }
  }

  list(): readonly WorkingDescription[] {
    return this.#all.map(describeWorking);
  }

  describe(id: string): WorkingDescription | undefined {
    const working = this.#byId.get(id);
    return working && describeWorking(working);
  }

  /** Runs a working on untrusted input; undefined when there is no such working. */
  run(id: string, raw: unknown): RunResult | undefined {
    const working = this.#byId.get(id);
    if (!working) return undefined;
    const read = readInput(working.inputs, raw);
    if (!read.ok) return { ok: false, issues: read.issues };
    const computed = working.compute(read.value);
    if (!computed.ok) return { ok: false, issues: computed.issues.map((issue) => ({ label: labelOf(working, issue.field), ...issue })) };
    const field = working.inputs[0]?.name ?? 'input';
    const overflow: RunResult = { ok: false, issues: [{ code: 'overflows', field, label: labelOf(working, field) }] };
    if (!isFinite(computed.value)) return overflow;
    const steps = working.explain(read.value, computed.value);
    const drawing = working.draw?.(read.value, computed.value);
    if (!isFinite(steps) || !isFinite(drawing)) return overflow;
    return {
      ok: true,
      run: { working: working.id, input: read.value, output: computed.value, steps, ...(drawing === undefined ? {} : { drawing }) },
    };
  }
}

/** No figure in it, however deep or written out, is infinite or none: figures can be too small, or too large together. */
function isFinite(part: unknown): boolean {
  if (typeof part === 'number') return Number.isFinite(part);
  if (typeof part === 'string') return !/(?:^|[^\p{L}])(?:NaN|-?Infinity)(?:$|[^\p{L}])/u.test(part);
  if (typeof part !== 'object' || part === null) return true;
  return Object.values(part).every(isFinite);
}

function labelOf(working: AnyWorking, name: string): string {
  return (working.inputs as readonly Field[]).find((field) => field.name === name)?.label ?? name;
}

function describeWorking(working: AnyWorking): WorkingDescription {
  const { id, title, area, inputs, outputs, sources, cautions, example } = working;
  return { id, title, area, inputs, outputs, sources, cautions, example, schema: inputSchema(working) };
}
