import { entryWords, owedWords, spoken, turnsWords } from '@jubb/book';
import { find } from '@jubb/sheet';
import { Suspense, lazy, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import Collapse from 'react-bootstrap/Collapse';
import { Link } from 'react-router';
import { useMoney } from '../../kit/money.ts';
import { fieldWords, Loading } from '../../kit/pieces.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { outbox } from '../../link/outbox.ts';
import { dayWords, promiseWords, timeWords } from '../../kit/days.ts';
import { LikelyCauses } from '../../job/causes.tsx';
import { OpenMarks } from '../strip/marks.tsx';
import { MovedAside } from '../strip/moved.tsx';
import { ToolsMade } from '../strip/tools-made.tsx';
import type { JobActs } from '../../job/asks.ts';
import { Ahead } from '../../job/timing/ahead.tsx';
import { Unproved } from '../../job/holds/unproved.tsx';
import { useHere } from '../../job/use-job.ts';
import { changeKey } from './change-key.ts';
import { StandsAt } from './stands-at.tsx';
import { TheVariant, WhichVariant } from './which-variant.tsx';

/** Beside the act: the job in two lines, and then only what is open. */
export function Beside({ acts, inHand }: { readonly acts: JobActs; readonly inHand: string | undefined }): ReactElement {
  const { state } = useHere();
  return (
    <aside className="beside" aria-label="About the job">
      <AboutJob />
      {state.stage === 'book-in' ? <LikelyCauses /> : null}
      <RefusedHere />
      <Unproved />
      <WhichVariant />
      <Ahead except={inHand} />
      <Stuck />
      <Dues />
      <OpenEnds />
      <MovedAside {...acts} />
      <OpenMarks {...acts} />
      <ToolsMade {...acts} />
      <Owed />
    </aside>
  );
}

/** Unit and promise; who it is for, what is said of it and what it goes by on request. */
function AboutJob(): ReactElement {
  const { job, state } = useHere();
  const money = useMoney();
  // What was half typed there is not put out of sight by a reload.
  const [draft] = useDraft<object | null>(changeKey(job.id), null);
  const [isMore, setMore] = useState(draft !== null);
  const { sheet } = job;
  return (
    <section className="about-job">
      <h2>
        <span className="fig">{job.number}</span> {job.unit.name}
      </h2>
      <div className="soft mb-1">
        {job.machine.name}
        <br />
        {job.closedAt ? `handed over ${dayWords(job.closedAt)}` : `promise ${promiseWords(job.promise)}`} ·{' '}
        <Button variant="quiet" className="p-0" aria-expanded={isMore} aria-controls="about-job" onClick={() => setMore(!isMore)}>
          {isMore ? 'less' : 'more'}
        </Button>
        <StandsAt />
      </div>
      <LastKept />
      {sheet.newer ? (
        <p className="mb-1">
          <Link className="brass" to={`/jobs/${job.id}/newer`}>
            Revision {sheet.newer.revision} is there: what it changes
          </Link>
        </p>
      ) : null}
      <Collapse in={isMore} mountOnEnter>
        <div id="about-job">
          <dl className="facts">
            <dt>Unit</dt>
            <dd>
              {job.unit.name}, <span className="fig">{job.unit.serial}</span>
            </dd>
            <dt>Customer</dt>
            <dd>
              <Link to={`/customers/${job.customer.id}`}>{job.customer.name}</Link> <span className="fig">{job.customer.phone}</span>
            </dd>
            <dt>Says</dt>
            <dd>{job.complaint}</dd>
            <dt>Sheet</dt>
            <dd>
              <Link to={`/sheets/${sheet.revisionId}`}>{sheet.file.title}</Link>, revision {sheet.revision}
              {sheet.status === 'draft' ? <span className="trust ms-1">draft</span> : null}
            </dd>
            <TheVariant />
            <dt>Estimate</dt>
            <dd className="fig">{money(job.estimateMinor)}</dd>
          </dl>
          {sheet.notOpened.length > 0 ? <p className="soft mb-1">Not opened: {sheet.notOpened.join(', ')}.</p> : null}
          {state.handedOver ? null : <ChangeJob />}
          <WhatItIsNow />
          <p className="mb-0">
            <Link to={`/jobs/${job.id}/label`}>Tag</Link> · <Link to={`/jobs/${job.id}/report`}>Report</Link>
          </p>
        </div>
      </Collapse>
    </section>
  );
}

/** What has not come yet, and how much of its ladder was tried. */
function Stuck(): ReactElement | null {
  const { job, sheet, state } = useHere();
  if (state.ladders.length === 0 || state.handedOver) return null;
  return (
    <section>
      <h2>Will not come</h2>
      <ul className="list-unstyled mb-1">
        {state.ladders.map(({ step: ref, what, tried, rungs, next }) => {
          const step = find(sheet.steps, ref ?? undefined);
          const words = next === undefined ? 'somebody is asked' : `${tried.length} of ${rungs.length} tried`;
          return (
            <li key={`${ref ?? ''} ${what}`}>
              {step ? <Link to={`/jobs/${job.id}/${step.stage}?step=${step.ref}`}>{what}</Link> : what}: {words}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** What was kept last, so that a key that was pressed is seen to have done something. */
function LastKept(): ReactElement | null {
  const { sheet, state, personName } = useHere();
  const last = state.live.at(-1);
  if (!last) return null;
  return (
    <p className="mb-1">
      <span className="soft">
        Last, {personName(last.personId).split(' ')[0]} {timeWords(last.takenAt)}:
      </span>{' '}
      {entryWords(last, sheet)}
    </p>
  );
}

/** What the server would not have, until somebody decides. */
function RefusedHere(): ReactElement | null {
  const { refused } = useHere();
  if (refused.length === 0) return null;
  return (
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
            <Button variant="plain" onClick={() => void outbox.settle(held.id, 'retry')}>
              Try again
            </Button>
            <Button variant="plain" onClick={() => void outbox.settle(held.id, 'drop')}>
              Take it out
            </Button>
          </div>
        </div>
      ))}
    </section>
  );
}

function OpenEnds(): ReactElement | null {
  const { state, keep } = useHere();
  if (state.openEnds.length === 0) return null;
  return (
    <section>
      <h2>Open ends</h2>
      <ul className="list-unstyled mb-1">
        {state.openEnds.map((end) => (
          <li key={end.key} className="mb-2">
            <b className="brass">{end.what}</b>
            {end.turns === undefined ? '' : `, ${turnsWords(end.turns)} as found`}
            {end.place ? `, ${end.place}` : ''}. <span className="soft">Closed by: {end.closes}</span>{' '}
            {end.entryId ? (
              <Button variant="quiet" onClick={() => keep({ kind: 'open-end-closed', payload: { opened: end.entryId } })}>
                It is closed
              </Button>
            ) : null}
          </li>
        ))}
      </ul>
    </section>
  );
}

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
function Owed(): ReactElement | null {
  const { job, state, keep } = useHere();
  const settled = new Set(state.live.flatMap((entry) => (entry.kind === 'owed-settled' ? [entry.payload.owed] : [])));
  const before = job.owed.filter(({ entryId }) => !settled.has(entryId));
  if (before.length === 0 && state.owed.length === 0) return null;
  const done = (owed: string): ReactElement | null =>
    state.handedOver ? null : (
      <Button variant="quiet" onClick={() => keep({ kind: 'owed-settled', payload: { owed, how: 'done' } })}>
        It is done
      </Button>
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
    </section>
  );
}

// It comes with its form library when it is asked for.
const ChangeForm = lazy(async () => ({ default: (await import('./change-job.tsx')).ChangeForm }));

/** Complaint, promise, estimate: opened when it is asked for, and while something is half typed in it. */
function ChangeJob(): ReactElement {
  const { job, person } = useHere();
  const [draft] = useDraft<object | null>(changeKey(job.id), null);
  const [open, setOpen] = useState(draft !== null);
  if (person.role === 'apprentice') return <></>;
  if (open)
    return (
      <Suspense fallback={<Loading what="the form" />}>
        <ChangeForm onDone={() => setOpen(false)} />
      </Suspense>
    );
  return (
    <Button variant="quiet" className="p-0" onClick={() => setOpen(true)}>
      Change promise, estimate
    </Button>
  );
}

/** What was made necessary on this job: bearings renewed, so the preload again. */
function Dues(): ReactElement | null {
  const { job, state } = useHere();
  const dues = state.dues.filter(({ closed }) => !closed);
  if (dues.length === 0) return null;
  return (
    <section>
      <h2>Made necessary</h2>
      <ul className="list-unstyled mb-1">
        {dues.map(({ obligation, by }) => {
          const step = find(state.sheet.steps, obligation.closedBy);
          return (
            <li key={obligation.ref} className="mb-1">
              <b className="brass">due</b>{' '}
              {step ? <Link to={`/jobs/${job.id}/${step.stage}?step=${step.ref}`}>{obligation.name}</Link> : obligation.name}
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
