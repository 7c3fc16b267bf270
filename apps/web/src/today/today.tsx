import { ENDPOINTS } from '@jubb/wire';
import type { MyLine, NoticeView, TodayLine } from '@jubb/book';
import { STAGE_NAMES } from '@jubb/sheet';
import { Suspense, lazy, useState, type ReactElement } from 'react';
import { Link } from 'react-router';
import Table from 'react-bootstrap/Table';
import Button from 'react-bootstrap/Button';
import { ask } from '../link/client.ts';
import { refresh, useSession, useSights, useToday } from '../link/queries.ts';
import { clockWords, dayWords, promiseWords, timeWords } from '../kit/days.ts';
import { Care, Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useSend } from '../kit/use-send.ts';
import { endTour, isTourOver } from '../learn/tour-seen.ts';
import { takeUpAt } from '../job/way-in.ts';
import { Day } from './day.tsx';
import './today.scss';

// What only one role looks after.
const ForCounter = lazy(async () => ({ default: (await import('./for-counter.tsx')).ForCounter }));

const ForForeman = lazy(async () => ({ default: (await import('./for-foreman.tsx')).ForForeman }));

/** So many lines are seen at a glance. */
const MOST_NOW = 6;

/** What can be done now, what waits for what and until when, what is late; to each role first what it settles. */
export function Today(): ReactElement {
  const { data: session } = useSession();
  const { data: today, error } = useToday();
  const [showsAll, setShowsAll] = useState(false);
  const first = session?.person.name.split(' ')[0] ?? '';
  const role = session?.person.role;
  if (!today) return error ? <Wrong error={error} /> : <Loading what="the benches" />;
  const lines = [...today.now, ...today.waiting];
  return (
    <div className="two">
      <div>
        <Title>{`Now, for ${first}`}</Title>
        <Notices notices={today.notices} />
        <FirstTour />
        <Sights />
        {today.now.length === 0 ? (
          <p>
            Nothing on the benches can go on. <Link to="/jobs/new">Book in a unit</Link> to begin.
          </p>
        ) : null}
        {role === 'foreman' ? <ToSettle lines={lines} /> : null}
        {(showsAll ? today.now : today.now.slice(0, MOST_NOW)).map((line, index) => (
          <Line key={line.jobId} line={line} isFirst={index === 0} />
        ))}
        {today.now.length > MOST_NOW && !showsAll ? (
          <Button variant="quiet" onClick={() => setShowsAll(true)}>
            Show all {today.now.length}
          </Button>
        ) : null}
        <p className="mt-3">
          <Link className="btn btn-plain" to="/jobs/new">
            Book in
          </Link>
        </p>
        {role === 'counter' || role === 'foreman' ? (
          <Suspense fallback={<Loading what="answers and goods" />}>
            <ForCounter isOwn={role === 'counter'} />
          </Suspense>
        ) : null}
        <h2 className="mt-4">Waiting</h2>
        {today.waiting.length === 0 ? <p className="soft">Nothing waits.</p> : null}
        <Table>
          <tbody>
            {today.waiting.map((line) => (
              <tr key={line.jobId}>
                <td className="fig fs-4" style={{ width: 64 }}>
                  <Link to={`/jobs/${line.jobId}`}>{line.number}</Link>
                </td>
                <td>
                  {line.unit}: <WaitsFor line={line} />
                </td>
                <td className={`text-end ${isPast(line.promise) ? 'v-out' : 'soft'}`}>promise {promiseWords(line.promise)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </div>
      <aside className="beside" aria-label="Promises and crib">
        <section>
          <h2>The day</h2>
          <Day lines={lines} />
        </section>
        {role === 'foreman' ? (
          <Suspense fallback={null}>
            <ForForeman />
          </Suspense>
        ) : null}
        <section>
          <h2>Promised</h2>
          <Promises lines={lines} />
        </section>
        {today.owed.length > 0 ? (
          <section>
            <h2>Owed, coming due</h2>
            <Table>
              <tbody>
                {today.owed.map((line) => (
                  <tr key={line.entryId}>
                    <td className="fig fs-5 text-nowrap">
                      <Link to={`/jobs/${line.jobId}`}>{line.jobNumber}</Link>
                    </td>
                    <td>
                      {line.what}.{' '}
                      <span className="soft">
                        {line.machine}, {line.customer}
                      </span>
                    </td>
                    <td className="fig fs-5 text-end text-nowrap">{line.due === null ? '' : dayWords(line.due)}</td>
                  </tr>
                ))}
              </tbody>
            </Table>
            {today.owedMore > 0 ? (
              <p className="soft">And {today.owedMore} more within a month, each with its machine: find it by its customer.</p>
            ) : null}
          </section>
        ) : null}
        <section>
          <h2>Crib</h2>
          {today.crib.length === 0 ? <p className="soft">Every tool is in date.</p> : null}
          <Table>
            <tbody>
              {today.crib.map((tool) => (
                <tr key={tool.tag}>
                  <td className="fig fs-5 text-nowrap">{tool.tag}</td>
                  <td>
                    {tool.name}, check was due {dayWords(tool.due)}
                  </td>
                  <td>
                    <span className="tag-box v-out">out</span>
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </section>
      </aside>
    </div>
  );
}

/** Offered until somebody took it on this device, or did not want it. */
function FirstTour(): ReactElement | null {
  const [isOver, setOver] = useState(isTourOver);
  if (isOver) return null;
  return (
    <p className="d-flex flex-wrap align-items-center gap-2">
      New here? <Link to="/learn/tour">Take the tour of ninety seconds</Link>
      <Button
        variant="quiet"
        onClick={() => {
          endTour();
          setOver(true);
        }}
      >
        No, thank you
      </Button>
    </p>
  );
}

/** In the demo: the way to what it has to show. */
function Sights(): ReactElement | null {
  const { data = [] } = useSights();
  if (data.length === 0) return null;
  return (
    <p>
      This is the demo. <Link to="/look">What to look at: {data.length} situations</Link>
    </p>
  );
}

/** What somebody has to know, until they put it away. */
function Notices({ notices }: { readonly notices: readonly NoticeView[] }): ReactElement | null {
  const { busy, error, send } = useSend();
  const putAway = (id: string): void =>
    void send(() => ask(ENDPOINTS.notices.putAway, { id })).then(() => refresh({ queryKey: ['today'] }));
  if (notices.length === 0) return null;
  return (
    <section aria-label="To know">
      {notices.map(({ id, words, at }) => (
        <Care key={id} title={timeWords(at)}>
          {words}{' '}
          <Button variant="quiet" disabled={busy} onClick={() => putAway(id)}>
            Seen, put it away
          </Button>
        </Care>
      ))}
      <Wrong error={error} />
    </section>
  );
}

function Line({ line, isFirst }: { readonly line: MyLine; readonly isFirst: boolean }): ReactElement {
  return (
    <article className={`line-row ${isFirst ? 'first' : ''}`}>
      <span className="fig">{line.number}</span>
      <div>
        <h2 className="mb-0">
          {STAGE_NAMES[line.stage]}: {line.next}
        </h2>
        <span className="soft">
          {line.unit}, {line.machine}. {line.customer}. {line.left > 0 ? `${line.left} left in this stage` : 'This stage is done'}
          {line.openEnds.length > 0 ? `, ${line.openEnds.length} open ${line.openEnds.length === 1 ? 'end' : 'ends'}` : ''}.
          {line.at ? ` Stands at ${line.at}.` : ''}
          {line.with ? ` ${line.with} is at it.` : ''}
          {isPast(line.promise) ? (
            <b className="v-out"> Late: it was promised {promiseWords(line.promise).replace(', late', '')}.</b>
          ) : null}
        </span>
        {line.waits ? (
          <div className="brass">
            <WaitsFor line={line} />.{line.also.length > 0 ? ` Meanwhile: ${line.also.join(', ')}` : ''}
          </div>
        ) : null}
      </div>
      <Link
        className={`btn ${isFirst ? 'btn-primary' : 'btn-plain'}`}
        to={takeUpAt(line.jobId, line.stage)}
        aria-label={`Take up ${line.number}`}
      >
        Take up
      </Link>
    </article>
  );
}

/** Why a job's next act cannot be done now. */
function WaitsFor({ line: { next, waits, hold } }: { readonly line: TodayLine }): ReactElement | null {
  if (!waits) return null;
  const until = waits.until === undefined ? '' : `, until ${clockWords(waits.until)}`;
  return (
    <>
      {hold ? '' : `${next}: `}
      {waits.words}
      {until}
    </>
  );
}

/** What the foreman alone can settle: signatures, what stayed unsure. */
function ToSettle({ lines }: { readonly lines: readonly TodayLine[] }): ReactElement | null {
  const asked = lines.filter(({ toSettle }) => toSettle.length > 0);
  if (asked.length === 0) return null;
  return (
    <section className="mb-3" aria-label="Yours to settle">
      <h2>Yours to settle</h2>
      <Table>
        <tbody>
          {asked.map((line) => (
            <tr key={line.jobId}>
              <td className="fig fs-4" style={{ width: 64 }}>
                <Link to={`/jobs/${line.jobId}`}>{line.number}</Link>
              </td>
              <td>
                {line.unit}: {line.toSettle.join('; ')}.
              </td>
              <td className={`text-end text-nowrap ${isPast(line.promise) ? 'v-out' : 'soft'}`}>promise {promiseWords(line.promise)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  );
}

const MOST_PROMISES = 8;

/** Open promises, the nearest first. */
function Promises({ lines }: { readonly lines: readonly TodayLine[] }): ReactElement {
  if (lines.length === 0) return <p className="soft">No promises open.</p>;
  return (
    <Table>
      <tbody>
        {lines
          .toSorted((a, b) => a.promise.localeCompare(b.promise))
          .slice(0, MOST_PROMISES)
          .map((line) => (
            <tr key={line.jobId}>
              <td className="fig fs-5 text-nowrap">{line.number}</td>
              <td>{line.unit}</td>
              <td className={`fig fs-5 text-end ${isPast(line.promise) ? 'v-out' : ''}`}>{promiseWords(line.promise)}</td>
            </tr>
          ))}
      </tbody>
    </Table>
  );
}

function isPast(iso: string): boolean {
  return Date.parse(iso) < Date.now();
}
