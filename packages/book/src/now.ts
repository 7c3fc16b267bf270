import { outOfUse, type BenchKind, type Tool, type Step, type Role } from '@jubb/sheet';
import { benchAnyway } from './benches.js';
import { isBefore } from './waits.js';
import { nextAct, type JobState } from './state.js';
import { forerunners } from './strip/traps.js';
import type { Hold, Waits } from './views.js';
import { rolesFor } from './kinds/registry.js';
import { stageTakes } from './kinds/roles.js';
import { stepKind } from './steps/registry.js';

/** What a job's doing hangs on besides its own entries. */
export interface Around {
  readonly hold: Hold | null;
  readonly tools: readonly Tool[];
  readonly role: Role;
  /** ISO time, and the day that is in the shop. */
  readonly now: string;
  readonly today: string;
}

/** Whether a job can go on now, with what, and why not. */
export interface CanDo {
  readonly next: string;
  /** What its next act waits for; null when it can be done. */
  readonly waits: Waits | null;
  /** Other steps of the stage that can be done meanwhile. */
  readonly also: readonly string[];
  /** The machine that its next act takes, whichever way it is done. */
  readonly bench?: BenchKind;
}

const MOST_ALSO = 3;

/** What can be done at a job now by somebody of a role: its next act, or what can be done while that waits. */
export function canDo(state: JobState, around: Around): CanDo {
  const act = nextAct(state);
  const next = act?.say ?? '';
  const { hold } = around;
  if (hold) return { next, waits: { words: `${hold.words} (${hold.reason})` }, also: [] };
  const takes = act && !act.step ? stageTakes(act.stage, around.role) : undefined;
  if (takes !== undefined) return { next, waits: { words: takes }, also: [] };
  const waits = act?.step ? stepWaits(state, act.step, around) : null;
  if (waits === null) {
    const bench = act?.step && benchAnyway(act.step);
    return { next, waits, also: [], ...(bench === undefined ? {} : { bench }) };
  }
  return { next, waits, also: meanwhile(state, act?.step, around).map(({ title }) => title) };
}

/** Steps of the stage that can be done while one of them waits. */
export function meanwhile(state: JobState, waiting: Step | undefined, around: Omit<Around, 'hold'>): readonly Step[] {
  return state.steps
    .filter(({ step, done }) => !done && step.stage === state.stage && step.ref !== waiting?.ref && !stepKind(step).holdsAll)
    .filter(({ step }) => forerunners(state, step).length === 0 && stepWaits(state, step, around) === null)
    .map(({ step }) => step)
    .slice(0, MOST_ALSO);
}

function stepWaits(state: JobState, step: Step, { tools, role, now, today }: Omit<Around, 'hold'>): Waits | null {
  const clock = state.clocks.find((one) => one.until > now && (one.step === step.ref || isBefore(state, one, step)));
  if (clock) return { words: clock.what, until: clock.until };
  const kind = stepKind(step).endsIn;
  const roles = kind === undefined ? undefined : rolesFor(kind);
  if (roles && !roles.includes(role)) return { words: `it takes a ${roles.join(' or ')}` };
  return toolMissing(state, step, tools, today);
}

/** The kind of tool that a step needs and the crib has none of in date. */
function toolMissing({ sheet }: JobState, step: Step, tools: readonly Tool[], today: string): Waits | null {
  const kind = stepKind(step).tool?.(step, sheet);
  if (!kind) return null;
  const usable = tools.some((tool) => tool.kind === kind && outOfUse(tool, today) === undefined);
  return usable ? null : { words: `no ${kind.replaceAll('-', ' ')} in calibration` };
}
