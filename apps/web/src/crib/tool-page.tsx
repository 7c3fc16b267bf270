import { WRITERS } from '@jubb/book';
import { formatQuantity } from '@jubb/core';
import { ENDPOINTS, RetireBody, type ToolView } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactElement } from 'react';
import { Link, useParams } from 'react-router';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import { addressOf, ask } from '../link/client.ts';
import { usePeople, useSession } from '../link/queries.ts';
import { Picture } from '../capture/picture.tsx';
import { usePhotoKey } from '../capture/photo-key.tsx';
import { Care, Loading, Title, Wrong } from '../kit/pieces.tsx';
import { offerUndo } from '../kit/undo.ts';
import { useSend } from '../kit/use-send.ts';
import { dayWords, shopToday } from '../kit/days.ts';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { Field } from '../kit/field.tsx';
import { CheckForm } from './check-form.tsx';
import { Study } from './gauge-study.tsx';
import { refreshTool } from './refresh-tool.ts';
import { ToolForm } from './tool-form.tsx';

export function ToolPage(): ReactElement {
  const { id = '' } = useParams();
  const { data: tool, error } = useQuery({ queryKey: ['stores', 'tool', id], queryFn: () => ask(ENDPOINTS.tools.one, { id }) });
  if (!tool) return error ? <Wrong error={error} /> : <Loading what="the tool" />;
  return <ToolSheet key={tool.id} tool={tool} />;
}

function ToolSheet({ tool }: { readonly tool: ToolView }): ReactElement {
  const { data: session } = useSession();
  const { busy, error, send } = useSend();
  const [isOpen, setOpen] = useState(false);
  const [isLeaving, setLeaving] = useState(false);
  const isForeman = session?.person.role === 'foreman';
  const today = shopToday();
  const isDue = tool.calibrationDue !== null && tool.calibrationDue < today;
  const lend = (personId: string | null): void => {
    const before = tool.holder?.id ?? null;
    void send(async () => {
      const { version } = await ask(ENDPOINTS.tools.lend, { id: tool.id, body: { version: tool.version, personId } });
      const words = personId === null ? 'is back in the crib' : personId === session?.person.id ? 'is with you' : 'is given out';
      offerUndo(`${tool.tag} ${words}`, async () => {
        await ask(ENDPOINTS.tools.lend, { id: tool.id, body: { version, personId: before } });
        await refreshTool();
      });
    }).then(refreshTool);
  };
  const photo = usePhotoKey(({ file }) => {
    void send(() => ask(ENDPOINTS.tools.picture, { id: tool.id, body: { version: tool.version, file } })).then(refreshTool);
  });
  const mayPicture = session !== undefined && session !== null && WRITERS.includes(session.person.role);
  const figure = (size: number): string => formatQuantity(size, tool.quantity, tool.unit);
  return (
    <>
      <Title sub={<Link to="/crib">Crib</Link>}>{`${tool.tag} ${tool.name}`}</Title>
      {tool.retired ? (
        <Care title="Out of use">
          Since {dayWords(tool.retired)}: {tool.retiredWhy}. It is offered nowhere; what was read and pulled with it stays.
        </Care>
      ) : null}
      {isDue && !tool.retired ? (
        <Care title="Not offered">
          Its check was due {dayWords(tool.calibrationDue!)}: at the bench another one is offered until it is checked.
        </Care>
      ) : null}
      {tool.touched.length > 0 ? <Touched tool={tool} /> : null}
      <div className="two form-first">
        <div>
          <section className="work mb-3">
            <dl className="facts">
              {tool.high > tool.low ? (
                <>
                  <dt>Range</dt>
                  <dd className="fig">
                    {figure(tool.low)} to {figure(tool.high)}
                  </dd>
                  <dt>Reads to</dt>
                  <dd className="fig">{figure(tool.resolution)}</dd>
                </>
              ) : null}
              <dt>Uncertainty</dt>
              <dd className="fig">{tool.quantity === 'length' ? formatQuantity(tool.u, 'length', 'µm') : figure(tool.u)}</dd>
              <dt>Usual spread</dt>
              <dd className="fig">{tool.quantity === 'length' ? formatQuantity(tool.s, 'length', 'µm') : figure(tool.s)}</dd>
              <dt>Check due</dt>
              <dd>{tool.calibrationDue === null ? 'not needed' : dayWords(tool.calibrationDue)}</dd>
              <dt>Is with</dt>
              <dd>{tool.holder ? `${tool.holder.name}, since ${dayWords(tool.holder.since)}` : 'the crib'}</dd>
            </dl>
            {tool.picture === null ? null : <Picture file={tool.picture} words={`${tool.tag} ${tool.name}`} width={160} height={120} />}
            <Wrong error={error} />
            {photo.element}
            <div className="keys">
              {tool.holder ? (
                <Button variant="plain" disabled={busy} onClick={() => lend(null)}>
                  It is back
                </Button>
              ) : null}
              {isForeman ? (
                <Button variant="plain" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
                  Change it
                </Button>
              ) : null}
              {isForeman && !tool.retired ? (
                <Button variant="plain" aria-expanded={isLeaving} onClick={() => setLeaving(!isLeaving)}>
                  Out of use for good
                </Button>
              ) : null}
              {isForeman && tool.retired ? (
                <Button variant="plain" disabled={busy} onClick={() => void send(() => retire(tool, null)).then(refreshTool)}>
                  In use again
                </Button>
              ) : null}
              {mayPicture ? (
                <Button variant="plain" onClick={photo.open}>
                  {tool.picture === null ? 'Photo' : 'Another photo'}
                </Button>
              ) : null}
              {session && !tool.retired && tool.holder?.id !== session.person.id ? (
                <Button variant="plain" disabled={busy} onClick={() => lend(session.person.id)}>
                  I have it
                </Button>
              ) : null}
            </div>
          </section>
          {isOpen ? (
            <section className="work mb-3" aria-label="Change it">
              <ToolForm key={tool.version} tool={tool} onDone={() => setOpen(false)} />
            </section>
          ) : null}
          {isLeaving && !tool.retired ? <Leaving tool={tool} onDone={() => setLeaving(false)} /> : null}
          {isForeman && !tool.retired ? <GiveTo tool={tool} onGive={lend} /> : null}
          {tool.retired ? null : <CheckForm tool={tool} />}
        </div>
        <div>
          <h2>Checks</h2>
          {tool.checks.length === 0 ? <p className="soft">None is kept here yet.</p> : null}
          <ul>
            {tool.checks.map((check) => (
              <li key={check.id}>
                <b className={check.verdict === 'good' ? 'v-in' : 'v-out'}>{check.verdict}</b> {dayWords(check.at)}, {check.person}, against{' '}
                {check.against}
                {check.certificate ? `, certificate ${check.certificate}` : ''}
                {check.paperId ? (
                  <>
                    {' '}
                    <a href={addressOf(ENDPOINTS.papers.read, { id: check.paperId })} target="_blank" rel="noreferrer">
                      its PDF
                    </a>
                  </>
                ) : null}
                {check.points.length > 0 ? (
                  <span className="fig">
                    {' '}
                    {check.points.map(({ shown, true: truth }) => `${figure(shown)} for ${figure(truth)}`).join(', ')}
                  </span>
                ) : null}
              </li>
            ))}
          </ul>
          {tool.quantity === 'length' ? <Study tool={tool} /> : null}
        </div>
      </div>
    </>
  );
}

/** Takes a tool out of use, or back; that can be undone for a while. */
async function retire(tool: ToolView, why: string | null): Promise<void> {
  const { version } = await ask(ENDPOINTS.tools.retire, { id: tool.id, body: { version: tool.version, why } });
  offerUndo(why === null ? `${tool.tag} is in use again` : `${tool.tag} is out of use`, async () => {
    await ask(ENDPOINTS.tools.retire, { id: tool.id, body: { version, why: why === null ? tool.retiredWhy : null } });
    await refreshTool();
  });
}

function Leaving({ tool, onDone }: { readonly tool: ToolView; readonly onDone: () => void }): ReactElement {
  const form = useAskForm({
    type: RetireBody,
    initial: { why: '', version: tool.version },
    onSend: async ({ why = '' }) => {
      await retire(tool, why);
      await refreshTool();
      onDone();
    },
  });
  return (
    <section className="work mb-3" aria-label="Out of use for good">
      <Asking of={form} act="Put it out of use">
        <Field of="retire" name="why" label="Why" maxLength={200} placeholder="Worn out, broken, sold" />
      </Asking>
    </section>
  );
}

/** The foreman gives it to whoever works here. */
function GiveTo({ tool, onGive }: { readonly tool: ToolView; readonly onGive: (personId: string) => void }): ReactElement | null {
  const { data: people = [] } = usePeople();
  const [chosen, setChosen] = useState('');
  const others = people.filter(({ id, leftAt }) => leftAt === null && id !== tool.holder?.id);
  return (
    <div className="mb-3">
      <FormLabel htmlFor="give-to">Give it to</FormLabel>
      <div className="d-flex gap-2">
        <FormSelect id="give-to" value={chosen} onChange={({ target }) => setChosen(target.value)}>
          <option value="">nobody yet</option>
          {others.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </FormSelect>
        <Button
          variant="plain"
          disabled={chosen === ''}
          onClick={() => {
            onGive(chosen);
            setChosen('');
          }}
        >
          Give
        </Button>
      </div>
    </div>
  );
}

/** So many jobs are seen at a glance. */
const MOST_TOUCHED = 20;

/** What a tool that was found out had touched since it was last known to be good. */
function Touched({ tool }: { readonly tool: ToolView }): ReactElement {
  const [showsAll, setShowsAll] = useState(false);
  // Open ones first: they can still be measured again.
  const jobs = [...new Map(tool.touched.map((entry) => [entry.jobId, entry])).values()].toSorted(
    (a, b) => Number(a.closedAt !== null) - Number(b.closedAt !== null),
  );
  const shown = showsAll ? jobs : jobs.slice(0, MOST_TOUCHED);
  return (
    <Care title="Look again" role="alert">
      It was found out. Since its last good check it made {tool.touched.length} {tool.touched.length === 1 ? 'entry' : 'entries'} on{' '}
      {jobs.length} {jobs.length === 1 ? 'job' : 'jobs'}:
      <ul className="mb-0">
        {shown.map(({ jobId, jobNumber, closedAt }) => {
          const own = tool.touched.filter((entry) => entry.jobId === jobId);
          return (
            <li key={jobId}>
              <Link to={`/jobs/${jobId}`}>Job {jobNumber}</Link>
              {closedAt === null ? '' : `, handed over ${dayWords(closedAt)}`}: {own.length} ×{' '}
              {[...new Set(own.map(({ kind }) => kind))].join(', ')}
            </li>
          );
        })}
      </ul>
      {shown.length < jobs.length ? (
        <Button variant="quiet" onClick={() => setShowsAll(true)}>
          Show all {jobs.length}
        </Button>
      ) : null}
    </Care>
  );
}
