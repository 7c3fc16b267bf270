import { isBefore, mayBeTimed, meanwhile, notReady, waitOf } from '@jubb/book';
import type { Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import { Link } from 'react-router';
import { leftWords, useNow } from '../../clocks/use-clocks.ts';
import { shopToday } from '../../kit/days.ts';
import { Care } from '../../kit/pieces.tsx';
import { RecorderLayout } from '../recorder/layout.tsx';
import { useHere } from '../use-job.ts';

const IDLE_MS = 3600 * 1000;

/** What a step waits for: something that must be ready, or a clock that still runs; nothing where its time has come. */
export function useTimed(step: Step): ReactElement | null {
  const { sheet, state } = useHere();
  // Nothing on the screen changes by the second where nothing can run.
  const now = useNow(mayBeTimed(sheet, step, 'tick') ? 1000 : IDLE_MS);
  const at = new Date(now).toISOString();
  if (state.handedOver) return null;
  const missing = notReady(step, state.live, at);
  if (missing?.why === 'not begun') return <NotBegun step={step} />;
  if (missing?.why === 'too late') return <TooLate step={step} />;
  const lead = missing?.begun;
  const clock = state.clocks.find((one) => one.until > at && isBefore(state, one, step));
  const waits = lead ? { entryId: lead.wait.id, what: lead.wait.payload.what, until: lead.from, hot: false } : clock;
  if (!waits) return null;
  return (
    <Runs step={step} entryId={waits.entryId} what={waits.what} leftMs={Date.parse(waits.until) - now} isHot={waits.hot === true} at={at} />
  );
}

/** Nobody has begun what must be ready. */
function NotBegun({ step }: { readonly step: Step }): ReactElement | null {
  const { keep } = useHere();
  const { lead } = step;
  if (!lead) return null;
  return (
    <RecorderLayout
      say={
        <>
          First: <b>{lead.what}</b>. It takes {lead.time}.
        </>
      }
      primary={{ label: 'It is begun', run: () => keep(waitOf(step, lead)) }}
    />
  );
}

/** It was ready, and is not any more: a heat that is gone, a bead that has set. */
function TooLate({ step }: { readonly step: Step }): ReactElement | null {
  const { keep } = useHere();
  const { lead } = step;
  if (!lead) return null;
  return (
    <RecorderLayout primary={{ label: 'Begun anew', run: () => keep(waitOf(step, lead)) }}>
      <Care title="Too late">
        {lead.what} holds for {lead.most} and no longer. Begin that anew.
      </Care>
    </RecorderLayout>
  );
}

interface RunsProps {
  readonly step: Step;
  readonly entryId: string;
  readonly what: string;
  readonly leftMs: number;
  readonly isHot: boolean;
  readonly at: string;
}

/** A clock runs: how long yet, and what can be done meanwhile. */
function Runs({ step, entryId, what, leftMs, isHot, at }: RunsProps): ReactElement {
  const { job, state, person, keep } = useHere();
  const others = meanwhile(state, step, { tools: job.tools, role: person.role, now: at, today: shopToday() });
  return (
    <RecorderLayout
      number={{ figure: leftWords(leftMs), unit: 'to go' }}
      say={what}
      primary={{ label: 'It is ready now', run: () => keep({ kind: 'wait-over', payload: { wait: entryId } }) }}
    >
      {isHot ? <Care title="Hot">Do not touch it before its time, or before a reading says that it is cool.</Care> : null}
      {others.length > 0 ? (
        <div className="d-flex flex-wrap gap-2 align-items-center">
          Meanwhile:
          {others.map(({ ref, stage, title }) => (
            <Link key={ref} className="btn btn-plain" to={`/jobs/${job.id}/${stage}?step=${ref}`}>
              {title}
            </Link>
          ))}
        </div>
      ) : null}
    </RecorderLayout>
  );
}
