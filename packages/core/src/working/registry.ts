import type { Field, Serves, Source, Working } from './describe.js';
import { runWorking, type RunResult } from './run.js';
import { inputSchema } from './schema.js';

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
  readonly heavy?: true;
}

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

  /** Ids of those that serve somewhere, the likelier first. */
  serving(at: Serves['at'], fits: (serves: Serves) => boolean): readonly string[] {
    return this.#all
      .flatMap(({ id, serves = [] }): readonly { readonly id: string; readonly rank: number }[] => {
        const one = (serves as readonly Serves[]).find((candidate) => candidate.at === at && fits(candidate));
        return one ? [{ id, rank: one.rank ?? 1 }] : [];
      })
      .toSorted((one, other) => one.rank - other.rank)
      .map(({ id }) => id);
  }

  /** How a working serves. */
  servesOf(id: string): readonly Serves[] {
    return (this.#byId.get(id)?.serves ?? []) as readonly Serves[];
  }

  /** Runs a working on untrusted input; undefined when there is no such working. */
  run(id: string, raw: unknown): RunResult | undefined {
    const working = this.#byId.get(id);
    if (!working) return undefined;
    return runWorking(working, raw);
  }
}

function describeWorking(working: AnyWorking): WorkingDescription {
  const { id, title, area, inputs, outputs, sources, cautions, example, heavy } = working;
  return {
    ...{ id, title, area, inputs, outputs, sources, cautions, example },
    schema: inputSchema(working),
    ...(heavy ? { heavy } : {}),
  };
}
