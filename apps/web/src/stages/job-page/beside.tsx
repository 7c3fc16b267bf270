import { KeyCap } from '../../kit/key-cap.tsx';
import { ENDPOINTS } from '@jubb/wire';
import { owedWords, spoken, turnsWords, type JobHead, type JobView } from '@jubb/book';
import { find } from '@jubb/sheet';
import { useState, type FormEvent, type ReactElement } from 'react';
import { Link } from 'react-router';
import { ask, meanwhile } from '../../link/client.ts';
import { jobKey, queryClient } from '../../link/queries.ts';
import { Labelled } from '../../kit/labelled.tsx';
import { minorOf, useMoney } from '../../kit/money.ts';
import { fieldWords, Wrong } from '../../kit/pieces.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { outbox } from '../../link/outbox.ts';
import { dayOf, promiseOn, promiseWords } from '../../kit/days.ts';
import { LikelyCauses } from '../../job/causes.tsx';
import { OpenMarks } from '../strip/marks.tsx';
import { MovedAside } from '../strip/moved.tsx';
import type { JobActs } from '../../job/asks.ts';
import { useHere } from '../../job/use-job.ts';

/** What belongs to the whole job: unit, open ends, hold, promise, sheet. */
export function Beside({ acts }: { readonly acts: JobActs }): ReactElement {
  const { ask } = acts;
  const { job, state, refused, keep } = useHere();
  const money = useMoney();
  return (
    <aside className="beside" aria-label="About the job">
      <section>
        <h2>
          Job <span className="fig fs-3">{job.number}</span>
        </h2>
        <dl className="facts">
          <dt>Unit</dt>
          <dd>
            {job.unit.name}, <span className="fig">{job.unit.serial}</span>
          </dd>
          <dt>Machine</dt>
          <dd>{job.machine.name}</dd>
          <dt>Customer</dt>
          <dd>{[job.customer.name, job.customer.phone].filter(Boolean).join(', ')}</dd>
          <dt>Says</dt>
          <dd>{job.complaint}</dd>
          <dt>Sheet</dt>
          <dd>
            <Link to={`/sheets/${job.sheet.revisionId}`}>{job.sheet.file.title}</Link>, revision {job.sheet.revision}
            {job.sheet.status === 'draft' ? <span className="trust ms-1">draft</span> : null}
            {job.sheet.newer ? (
              <div>
                <Link className="brass" to={`/jobs/${job.id}/newer`}>
                  Revision {job.sheet.newer.revision} is there: what it changes
                </Link>
              </div>
            ) : null}
          </dd>
          <dt>Promise</dt>
          <dd>{promiseWords(job.promise)}</dd>
          <dt>Estimate</dt>
          <dd className="fig">{money(job.estimateMinor)}</dd>
        </dl>
        {job.sheet.notOpened.length > 0 ? <p className="soft mb-1">Not opened: {job.sheet.notOpened.join(', ')}.</p> : null}
        {state.handedOver ? null : <ChangeJob />}
      </section>
      <WhatItIsNow />
      {state.stage === 'book-in' ? <LikelyCauses /> : null}
      {refused.length > 0 ? (
        <section>
          <h2>Refused by the server</h2>
          {refused.map((held) => (
            <div key={held.id} className="care" role="alert">
              <b>{held.kind}</b>
              {held.refused?.title}
              {(held.refused?.errors ?? []).map((problem) => (
                <div key={problem.field + problem.allowed}>{fieldWords(problem)}</div>
              ))}
              <div className="keys">
                <button type="button" className="btn btn-plain" onClick={() => void outbox.settle(held.id, 'retry')}>
                  Try again
                </button>
                <button type="button" className="btn btn-plain" onClick={() => void outbox.settle(held.id, 'drop')}>
                  Take it out
                </button>
              </div>
            </div>
          ))}
        </section>
      ) : null}
      <Dues />
      <section>
        <h2>Open ends</h2>
        {state.openEnds.length === 0 ? <p className="soft mb-1">None.</p> : null}
        <ul className="list-unstyled mb-1">
          {state.openEnds.map((end) => (
            <li key={end.key} className="mb-2">
              <b className="brass">{end.what}</b>
              {end.turns === undefined ? '' : `, ${turnsWords(end.turns)} as found`}
              {end.place ? `, ${end.place}` : ''}. <span className="soft">Closed by: {end.closes}</span>{' '}
              {end.entryId ? (
                <button
                  type="button"
                  className="btn btn-quiet"
                  onClick={() => keep({ kind: 'open-end-closed', payload: { opened: end.entryId } })}
                >
                  It is closed
                </button>
              ) : null}
            </li>
          ))}
        </ul>
        {state.handedOver ? null : (
          <div className="keys mt-1">
            <button type="button" className="btn btn-plain" onClick={() => ask({ what: 'open-end' })}>
              Open end <KeyCap of="open-end" />
            </button>
            {SELDOM.map(([what, label]) => (
              <button key={what} type="button" className="btn btn-plain" onClick={() => ask({ what })}>
                {label} <KeyCap of={what} />
              </button>
            ))}
            <button type="button" className="btn btn-plain" onClick={() => acts.photo()}>
              Photo <KeyCap of="photo" />
            </button>
            {job.hold ? null : (
              <button type="button" className="btn btn-plain" onClick={acts.hold}>
                Hold <KeyCap of="hold" />
              </button>
            )}
          </div>
        )}
      </section>
      <MovedAside {...acts} />
      <OpenMarks {...acts} />
      <Owed onOwed={() => ask({ what: 'owed' })} />
      <div className="keys mt-0">
        {state.handedOver ? null : (
          <Link className="btn btn-plain" to={`/bench/${job.id}`}>
            Bench view <KeyCap of="bench" />
          </Link>
        )}
        <Link className="btn btn-plain" to={`/jobs/${job.id}/label`}>
          Tag
        </Link>
        <Link className="btn btn-plain" to={`/jobs/${job.id}/report`}>
          Report
        </Link>
      </div>
    </aside>
  );
}

/** What is recorded beside the steps, by one key. */
const SELDOM = [
  ['note', 'Note'],
  ['talk', 'Talk'],
  ['finding', 'As found'],
  ['came-out', 'Came out'],
] as const;

/** What the unit is since its last rebuild here: that it failed again begins with this. */
function WhatItIsNow(): ReactElement | null {
  const { asLeft } = useHere().job;
  if (!asLeft) return null;
  const { ways, parts } = asLeft;
  return (
    <section>
      <h2>What it is now</h2>
      <ul className="list-unstyled mb-1">
        {parts.map(({ name, fate, reason }) => (
          <li key={name}>
            <b>{name}</b>: {fate === 'renew' ? 'renewed' : 'reworked'}
            {reason ? <span className="soft">, {reason}</span> : null}
          </li>
        ))}
        {ways.map(({ step, title, name }) => (
          <li key={step}>
            <b>{title}</b>: {name}
          </li>
        ))}
      </ul>
      <Link to={`/jobs/${asLeft.jobId}`}>job {asLeft.number}</Link>
    </section>
  );
}

/** What this job puts off, and what earlier ones of the machine left to do. */
function Owed({ onOwed }: { readonly onOwed: () => void }): ReactElement | null {
  const { job, state, keep } = useHere();
  const settled = new Set(state.live.flatMap((entry) => (entry.kind === 'owed-settled' ? [entry.payload.owed] : [])));
  const before = job.owed.filter(({ entryId }) => !settled.has(entryId));
  if (state.handedOver && before.length === 0 && state.owed.length === 0) return null;
  const done = (owed: string): ReactElement | null =>
    state.handedOver ? null : (
      <button type="button" className="btn btn-quiet" onClick={() => keep({ kind: 'owed-settled', payload: { owed, how: 'done' } })}>
        It is done
      </button>
    );
  return (
    <section>
      <h2>Owed</h2>
      <ul className="list-unstyled mb-1">
        {before.map((line) => (
          <li key={line.entryId} className="mb-2">
            <b className="brass">{owedWords(spoken(line))}</b>, from <Link to={`/jobs/${line.jobId}`}>job {line.jobNumber}</Link>.{' '}
            <span className="soft">{line.told}</span> {done(line.entryId)}
          </li>
        ))}
        {state.owed.map(({ id, payload: { told, ...owed } }) => (
          <li key={id} className="mb-2">
            <b>{owedWords(owed)}</b>. <span className="soft">{told}</span> {done(id)}
          </li>
        ))}
      </ul>
      {state.handedOver ? null : (
        <button type="button" className="btn btn-plain" onClick={onOwed}>
          Put off <KeyCap of="owed" />
        </button>
      )}
    </section>
  );
}

interface ChangeDraft {
  readonly complaint: string;
  readonly promise: string;
  readonly estimate: string;
  /** Version of the job that the draft began from. */
  readonly version: number;
}

function draftOf(job: JobHead): ChangeDraft {
  return {
    complaint: job.complaint,
    promise: dayOf(job.promise),
    estimate: (job.estimateMinor / 100).toFixed(2),
    version: job.version,
  };
}

/** Complaint, promise, estimate. When somebody else was first, both stand side by side. */
function ChangeJob(): ReactElement {
  const { job, person } = useHere();
  const [open, setOpen] = useState(false);
  const [draft, setDraft] = useDraft<ChangeDraft | null>(`${job.id}.change`, null);
  const [error, setError] = useState<unknown>();
  const [tried, setTried] = useState(false);
  if (person.role === 'apprentice') return <></>;
  if (!open && !draft) {
    return (
      <button type="button" className="btn btn-quiet p-0" onClick={() => setOpen(true)}>
        Change promise, estimate
      </button>
    );
  }
  const shown = draft ?? draftOf(job);
  const current = meanwhile<JobHead>(error);
  const money = minorOf(shown.estimate);
  const set = (change: Partial<ChangeDraft>): void => setDraft({ ...shown, ...change });
  const close = (): void => {
    setDraft(undefined);
    setOpen(false);
    setError(undefined);
    setTried(false);
  };
  const save = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setTried(true);
    if (money === undefined) return;
    try {
      const body = {
        version: current?.version ?? shown.version,
        complaint: shown.complaint,
        promise: promiseOn(shown.promise),
        estimateMinor: money,
      };
      const head = await ask(ENDPOINTS.jobs.patch, { id: job.id, body });
      queryClient.setQueryData<JobView>(jobKey(job.id), (view) => view && { ...view, ...head });
      close();
    } catch (refusal) {
      setError(refusal);
    }
  };
  return (
    <form className="work mt-2" noValidate onSubmit={(event) => void save(event)}>
      <Wrong error={error} />
      {current ? (
        <p>
          It now says: {current.complaint} Promise {promiseWords(current.promise)}, estimate {(current.estimateMinor / 100).toFixed(2)}.
          What you typed is still here; keep it to put it in its place.
        </p>
      ) : null}
      <Labelled id="ch-complaint" label="Complaint">
        <textarea
          id="ch-complaint"
          className="form-control"
          rows={2}
          maxLength={2000}
          value={shown.complaint}
          onChange={(event) => set({ complaint: event.target.value })}
        />
      </Labelled>
      <Labelled id="ch-promise" label="Promise">
        <input
          id="ch-promise"
          type="date"
          className="form-control"
          required
          value={shown.promise}
          onChange={(event) => set({ promise: event.target.value })}
        />
      </Labelled>
      <Labelled id="ch-estimate" label="Estimate">
        <input
          id="ch-estimate"
          inputMode="decimal"
          className={`form-control ${tried && money === undefined ? 'is-invalid' : ''}`}
          value={shown.estimate}
          onChange={(event) => set({ estimate: event.target.value })}
        />
        {tried && money === undefined ? (
          <div className="v-out">&quot;{shown.estimate}&quot; is not an amount; give one such as 420.00</div>
        ) : null}
      </Labelled>
      <div className="keys">
        <button type="submit" className="btn btn-primary">
          {current ? 'Keep mine' : 'Keep'}
        </button>
        <button type="button" className="btn btn-plain" onClick={close}>
          Leave it
        </button>
      </div>
    </form>
  );
}

/** What was made necessary on this job: bearings renewed, so the preload again. */
function Dues(): ReactElement | null {
  const { job, state } = useHere();
  if (state.dues.length === 0) return null;
  return (
    <section>
      <h2>Made necessary</h2>
      <ul className="list-unstyled mb-1">
        {state.dues.map(({ obligation, by, closed }) => {
          const step = find(state.sheet.steps, obligation.closedBy);
          return (
            <li key={obligation.ref} className="mb-1">
              <b className={closed ? 'v-in' : 'brass'}>{closed ? 'met' : 'due'}</b>{' '}
              {step && !closed ? <Link to={`/jobs/${job.id}/${step.stage}?step=${step.ref}`}>{obligation.name}</Link> : obligation.name}
              <div className="soft">
                {by}. {obligation.why}
              </div>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
