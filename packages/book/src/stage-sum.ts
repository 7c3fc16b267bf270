import { find, STAGES, type Stage, type Step } from '@jubb/sheet';
import { isKind, type AnyKeptEntry } from './entries/kept.js';
import { verdictOf } from './measured/verdict.js';
import type { JobState } from './state.js';

/** What a stage found, when it ends. */
export interface StageSum {
  /** Names of what was judged out, and of what is unsure. */
  readonly out: readonly string[];
  readonly unsure: readonly string[];
  /** How many of its entries were struck. */
  readonly struck: number;
  /** From its first entry to its last, nights and waits included. */
  readonly minutes: number;
  /** What the next stage begins with. */
  readonly next: Step | undefined;
}

const MINUTE_MS = 60_000;

/** What the entries at the steps of a stage come to. */
export function stageSum(
  state: Pick<JobState, 'sheet' | 'steps' | 'live' | 'struck'>,
  entries: readonly AnyKeptEntry[],
  stage: Stage,
): StageSum {
  const steps = new Set(state.steps.filter(({ step }) => step.stage === stage).map(({ step }) => step.ref));
  const own = entries.filter(({ step }) => step !== null && steps.has(step));
  const live = own.filter(({ id }) => !state.struck.has(id));
  const judged = live.flatMap((entry) => judgedBy(state, entry) ?? []);
  // Of what was measured again the last word stands.
  const last = new Map(judged.map(({ name, verdict }) => [name, verdict]));
  const named = (wanted: 'out' | 'unsure'): readonly string[] => [...last].flatMap(([name, verdict]) => (verdict === wanted ? [name] : []));
  const times = live.map(({ takenAt }) => Date.parse(takenAt));
  const onward = STAGES[STAGES.indexOf(stage) + 1];
  return {
    out: named('out'),
    unsure: named('unsure'),
    struck: own.filter(({ id, kind }) => kind !== 'strike' && state.struck.has(id)).length,
    minutes: times.length === 0 ? 0 : Math.round((Math.max(...times) - Math.min(...times)) / MINUTE_MS),
    next: state.steps.find(({ step, done }) => step.stage === onward && !done)?.step,
  };
}

interface Judged {
  readonly name: string;
  readonly verdict: 'in' | 'out' | 'unsure';
}

function judgedBy({ sheet }: Pick<JobState, 'sheet'>, entry: AnyKeptEntry): Judged | undefined {
  if (!isKind('reading')(entry) && !isKind('look')(entry)) return undefined;
  const limit = find(sheet.limits, entry.payload.limit);
  const verdict = isKind('look')(entry) ? find(limit?.looks ?? [], entry.payload.look)?.verdict : verdictOf(entry);
  return limit && verdict && { name: limit.name, verdict };
}
