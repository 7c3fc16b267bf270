import { capital, waitOf, type LeadState } from '@jubb/book';
import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useNow } from '../../clocks/use-clocks.ts';
import { timeWords } from '../../kit/days.ts';
import { useHere } from '../use-job.ts';
import './ahead.scss';

const EVERY_MS = 10_000;

/** What can be begun now for a later step, and what is ready: ovens, soaks, charges. Its own step asks for it itself. */
export function Ahead({ except }: { readonly except?: string | undefined }): ReactElement | null {
  const { state } = useHere();
  const now = useNow(EVERY_MS);
  const leads = state.leads.filter(({ step, mayBegin, begun }) => step.ref !== except && (begun !== undefined || mayBegin));
  if (leads.length === 0 || state.handedOver) return null;
  return (
    <section className="ahead" aria-label="Ahead">
      <h2>Ahead</h2>
      <ul className="list-unstyled mb-1">
        {leads.map((lead) => (
          <LeadLine key={lead.step.ref} of={lead} at={new Date(now).toISOString()} />
        ))}
      </ul>
    </section>
  );
}

function LeadLine({ of: { step, lead, begun }, at }: { readonly of: LeadState; readonly at: string }): ReactElement {
  const { keep } = useHere();
  const isPast = begun?.until !== undefined && begun.until < at;
  const words = !begun
    ? `takes ${lead.time}`
    : isPast
      ? `was ready until ${timeWords(begun.until!)}: begin it anew`
      : begun.from > at
        ? `ready at ${timeWords(begun.from)}`
        : `ready since ${timeWords(begun.from)}`;
  return (
    <li className="mb-1">
      <b>{capital(lead.what)}</b>, <span className={isPast ? 'v-out' : ''}>{words}</span> <span className="soft">for: {step.title}</span>{' '}
      {begun && !isPast ? null : (
        <Button variant="plain" size="sm" onClick={() => keep(waitOf(step, lead))}>
          {isPast ? 'Begun anew' : 'Begun now'}
        </Button>
      )}
    </li>
  );
}
