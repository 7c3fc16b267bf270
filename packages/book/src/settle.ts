import { mayAccept } from './runs/setting-run.js';
import { nextAct, type JobState } from './state.js';

/** What only the foreman can settle on a job as it stands: a signature that is due, a setting that stayed unsure, a part in doubt. */
export function toSettle(state: JobState): readonly string[] {
  const settings = state.settings.flatMap(({ setting, last }) =>
    last && mayAccept(last) ? [`${setting.name} is unsure: accept it or set it again`] : [],
  );
  const parts = state.decisions
    .filter(({ verdict, entry }) => verdict === 'unsure' && entry === undefined)
    .map(({ part, because }) => `${part.name}: ${because}`);
  const isSigning = nextAct(state)?.step?.record.kind === 'sign';
  return [...settings, ...parts, ...(isSigning ? ['Waits for a signature'] : [])];
}
