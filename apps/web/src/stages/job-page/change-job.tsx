import type { JobHead, JobView } from '@jubb/book';
import { ENDPOINTS, PatchJobBody } from '@jubb/wire';
import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { ask, meanwhile } from '../../link/client.ts';
import { jobKey, queryClient } from '../../link/queries.ts';
import { useHere } from '../../job/use-job.ts';
import { useAskForm } from '../../kit/ask-form.ts';
import { Asking } from '../../kit/asking.tsx';
import { Field } from '../../kit/field.tsx';
import { amountText, minorOf } from '../../kit/money.ts';
import { dayOf, promiseOn, promiseWords } from '../../kit/days.ts';
import { PromiseField } from '../../kit/promise-field.tsx';
import { changeKey } from './change-key.ts';

interface Typed {
  complaint: string;
  promise: string;
  estimate: string;
  /** Of the job, when this was begun. */
  version: number;
}

/** Complaint, promise, estimate. When somebody else was first, both stand side by side. */
export function ChangeForm({ onDone }: { readonly onDone: () => void }): ReactElement {
  const { job } = useHere();
  const initial: Typed = {
    complaint: job.complaint,
    promise: dayOf(job.promise),
    estimate: amountText(job.estimateMinor),
    version: job.version,
  };
  const form = useAskForm<Typed, PatchJobBody>({
    type: PatchJobBody,
    draft: changeKey(job.id),
    initial,
    toBody: ({ complaint, promise, estimate, version }) => ({
      version,
      complaint,
      promise: promise === '' ? '' : promiseOn(promise),
      estimateMinor: minorOf(estimate) ?? Number.NaN,
    }),
    names: { estimateMinor: 'estimate' },
    onSend: async (body) => {
      const head = await ask(ENDPOINTS.jobs.patch, { id: job.id, body: { ...body, version: current?.version ?? body.version } });
      queryClient.setQueryData<JobView>(jobKey(job.id), (view) => view && { ...view, ...head });
      form.begin(initial);
      onDone();
    },
  });
  const current = meanwhile<JobHead>(form.error);
  return (
    <Asking
      of={form}
      className="work mt-2"
      keys={
        <div className="keys">
          <Button type="submit" variant="primary" disabled={form.busy}>
            {current ? 'Keep mine' : 'Keep'}
          </Button>
          <Button
            variant="plain"
            onClick={() => {
              form.begin(initial);
              onDone();
            }}
          >
            Leave it
          </Button>
        </div>
      }
    >
      {current ? (
        <p>
          It now says: {current.complaint} Promise {promiseWords(current.promise)}, estimate {amountText(current.estimateMinor)}. What you
          typed is still here; keep it to put it in its place.
        </p>
      ) : null}
      <Field of="ch" name="complaint" label="Complaint" as="textarea" rows={2} maxLength={2000} />
      <PromiseField of="ch" />
      <Field of="ch" name="estimate" label="Estimate" inputMode="decimal" maxLength={12} />
    </Asking>
  );
}
