import { stageSum } from '@jubb/book';
import { STAGES, STAGE_NAMES, type Stage } from '@jubb/sheet';
import type { ReactElement } from 'react';
import { useHere } from './use-job.ts';

const HOUR_MIN = 60;

/** What a stage found, and what the next begins with. */
export function StageDone({ stage, heading: Heading = 'h1' }: { readonly stage: Stage; readonly heading?: 'h1' | 'h2' }): ReactElement {
  const { job, state } = useHere();
  const { out, unsure, struck, minutes, next } = stageSum(state, job.entries, stage);
  const onward = STAGES[STAGES.indexOf(stage) + 1];
  const found = [
    ['Out', out],
    ['Unsure', unsure],
    ['Open', state.openEnds.map(({ what }) => what)],
  ] as const;
  return (
    <>
      <Heading>{STAGE_NAMES[stage]} is done</Heading>
      <dl className="facts stage-sum">
        {found.map(([word, names]) =>
          names.length === 0 ? null : (
            <div key={word} style={{ display: 'contents' }}>
              <dt>
                {word} <span className="fig">{names.length}</span>
              </dt>
              <dd>{names.join(', ')}</dd>
            </div>
          ),
        )}
        {struck > 0 ? (
          <>
            <dt>Struck</dt>
            <dd className="fig">{struck}</dd>
          </>
        ) : null}
        {minutes > 0 ? (
          <>
            <dt>Took</dt>
            <dd className="fig">{timeTaken(minutes)}</dd>
          </>
        ) : null}
        {next && onward ? (
          <>
            <dt>{STAGE_NAMES[onward]} begins with</dt>
            <dd>{next.title}</dd>
          </>
        ) : null}
      </dl>
    </>
  );
}

/** "50 min", "3 h 20 min": first entry to last, waits in it. */
function timeTaken(minutes: number): string {
  const [hours, rest] = [Math.floor(minutes / HOUR_MIN), minutes % HOUR_MIN];
  if (hours === 0) return `${minutes} min`;
  return rest === 0 || hours >= 24 ? `${hours} h` : `${hours} h ${rest} min`;
}
