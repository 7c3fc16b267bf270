import { ENDPOINTS, type LendBody, type StudyBody, type ToolCheckBody, type ToolView } from '@jubb/wire';
import { formatQuantity, parseQuantity, workings, wording } from '@jubb/core';
import { useQuery } from '@tanstack/react-query';
import { useState, type FormEvent, type ReactElement } from 'react';
import { Link, useParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { Refusal, ask } from '../link/client.ts';
import { refresh, useSession } from '../link/queries.ts';
import { Drawn } from '../drawings/drawn.tsx';
import { Care, Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useDraft } from '../kit/prefs.ts';
import { useSend } from '../kit/use-send.ts';
import { dayWords, inDays, shopToday } from '../kit/days.ts';

export function ToolPage(): ReactElement {
  const { id = '' } = useParams();
  const { data: tool, error } = useQuery({ queryKey: ['stores', 'tool', id], queryFn: () => ask(ENDPOINTS.tools.one, { id }) });
  if (!tool) return error ? <Wrong error={error} /> : <Loading what="the tool" />;
  return <ToolSheet key={tool.id} tool={tool} />;
}

async function refreshTool(): Promise<void> {
  await refresh({ queryKey: ['stores', 'tool'] });
  await refresh({ queryKey: ['tools'] });
}

function ToolSheet({ tool }: { readonly tool: ToolView }): ReactElement {
  const { data: session } = useSession();
  const { busy, error, send } = useSend();
  const today = shopToday();
  const isDue = tool.calibrationDue !== null && tool.calibrationDue < today;
  const lend = (personId: string | null): void => {
    const body: LendBody = { version: tool.version, personId };
    void send(() => ask(ENDPOINTS.tools.lend, { id: tool.id, body })).then(refreshTool);
  };
  const figure = (size: number): string => formatQuantity(size, tool.quantity, tool.unit);
  return (
    <>
      <Title sub={<Link to="/crib">Crib</Link>}>{`${tool.tag} ${tool.name}`}</Title>
      {isDue ? (
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
            <Wrong error={error} />
            <div className="keys">
              {tool.holder ? (
                <button type="button" className="btn btn-plain" disabled={busy} onClick={() => lend(null)}>
                  It is back
                </button>
              ) : null}
              {session && tool.holder?.id !== session.person.id ? (
                <button type="button" className="btn btn-plain" disabled={busy} onClick={() => lend(session.person.id)}>
                  I have it
                </button>
              ) : null}
            </div>
          </section>
          <CheckForm tool={tool} />
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

/** What a tool that was found out had touched since it was last known to be good. */
function Touched({ tool }: { readonly tool: ToolView }): ReactElement {
  const jobs = [...new Map(tool.touched.map((entry) => [entry.jobId, entry])).values()];
  return (
    <div className="care" role="alert">
      <b>Look again</b>
      It was found out. Since its last good check it made {tool.touched.length} {tool.touched.length === 1 ? 'entry' : 'entries'}:
      <ul className="mb-0">
        {jobs.map(({ jobId, jobNumber, closedAt }) => {
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
    </div>
  );
}

interface CheckTyped {
  readonly points: string;
  readonly against: string;
  readonly certificate: string;
  readonly due: string;
}

function CheckForm({ tool }: { readonly tool: ToolView }): ReactElement {
  const [due] = useState(() => inDays(tool.everyDays ?? 365));
  const [typed, setTyped] = useDraft<CheckTyped>(`check.${tool.id}`, { points: '', against: '', certificate: '', due });
  const [id, setId] = useState(() => uuid());
  const { busy, error, send } = useSend();
  const set = (change: Partial<CheckTyped>): void => setTyped({ ...typed, ...change });
  const lines = typed.points.split('\n').filter((line) => line.trim() !== '');
  const points = lines.map((line) => {
    const [shown, truth] = line
      .trim()
      .split(/\s*;\s*|\s+(?=[-+\d])/u)
      .map((part) => parseQuantity(part, tool.quantity, 'point', tool.unit));
    return shown?.ok && truth?.ok ? { shown: shown.quantity.base, true: truth.quantity.base } : undefined;
  });
  const wrong = points.indexOf(undefined);
  const judged =
    tool.quantity === 'torque' && points.length > 0 && wrong === -1
      ? workings.run('tool.check', {
          ...(tool.high > 0 ? { largest: tool.high } : {}),
          type: tool.kind === 'beam-wrench' ? 'beam' : 'click',
          points: points.map((point) => ({ set: point!.shown, true: point!.true })),
        })
      : undefined;
  const verdict = judged?.ok ? String(judged.run.output['verdict']) : undefined;
  const keep = (found: 'good' | 'out') => async (): Promise<void> => {
    if (wrong !== -1) return;
    const body: ToolCheckBody = {
      id,
      verdict: found,
      points: points.map((point) => point!),
      against: typed.against,
      ...(typed.certificate.trim() ? { certificate: typed.certificate.trim() } : {}),
      ...(found === 'good' && typed.due ? { due: typed.due } : {}),
    };
    if (!(await send(() => ask(ENDPOINTS.tools.check, { id: tool.id, body })))) return;
    setTyped(undefined);
    setId(uuid());
    await refreshTool();
  };
  const problem = (field: string): string | undefined =>
    error instanceof Refusal ? error.fields.find((one) => one.field === field)?.allowed : undefined;
  const submit = (event: FormEvent): void => event.preventDefault();
  return (
    <form className="work" onSubmit={submit} noValidate>
      <h2>Check it</h2>
      <label className="form-label" htmlFor="check-points">
        Shown and true, one pair to a line, in {tool.unit}
      </label>
      <textarea
        id="check-points"
        className={`form-control fig ${wrong === -1 ? '' : 'is-invalid'}`}
        rows={3}
        placeholder={tool.quantity === 'torque' ? '40 39.4' : '25.000 25.001'}
        value={typed.points}
        onChange={(event) => set({ points: event.target.value })}
      />
      {wrong === -1 ? null : <div className="v-out">Line {wrong + 1} is no pair of figures</div>}
      {verdict ? (
        <p className={`mb-1 v-${verdict}`}>
          By ISO 6789-1: <b>{verdict}</b>, worst {formatQuantity(Number(judged?.ok ? judged.run.output['worst'] : 0), 'ratio', '%')}
        </p>
      ) : null}
      {judged && !judged.ok ? <div className="v-out">{judged.issues.map(wording).join('; ')}</div> : null}
      <div className="row mt-2">
        {(
          [
            ['against', 'Held against', 'text'],
            ['certificate', 'Certificate', 'text'],
            ['due', 'Next check', 'date'],
          ] as const
        ).map(([name, label, type]) => (
          <div key={name} className="col-6 mb-2">
            <label className="form-label" htmlFor={`check-${name}`}>
              {label}
            </label>
            <input
              id={`check-${name}`}
              type={type}
              className={`form-control ${problem(name) ? 'is-invalid' : ''}`}
              maxLength={200}
              value={typed[name]}
              onChange={(event) => set({ [name]: event.target.value })}
            />
            {problem(name) ? <div className="v-out">{problem(name)}</div> : null}
          </div>
        ))}
      </div>
      <Wrong error={error} hide={['against', 'certificate', 'due']} />
      <div className="keys">
        <button type="button" className="btn btn-primary" disabled={busy} onClick={() => void keep('good')()}>
          It is good
        </button>
        <button type="button" className="btn btn-plain" disabled={busy} onClick={() => void keep('out')()}>
          It is out
        </button>
      </div>
    </form>
  );
}

interface StudyTyped {
  readonly people: string;
  readonly parts: string;
  readonly trials: string;
  /** Cells by person, part and trial. */
  readonly cells: Readonly<Record<string, string>>;
}

/** A gauge study through the screen: each person measures each part in turn, without seeing what was read before. */
function Study({ tool }: { readonly tool: ToolView }): ReactElement {
  const { data: session } = useSession();
  const me = session?.person.name.split(' ')[0] ?? '';
  const [typed, setTyped] = useDraft<StudyTyped>(`study.${tool.id}`, { people: me, parts: '5', trials: '2', cells: {} });
  const [id] = useState(() => uuid());
  const [open, setOpen] = useState(false);
  const { busy, error, send } = useSend();
  const people = typed.people
    .split(/[;,]/u)
    .map((name) => name.trim())
    .filter(Boolean)
    .slice(0, 6);
  const parts = Array.from({ length: Math.min(20, Math.max(2, Number(typed.parts) || 2)) }, (_, index) => String(index + 1));
  const trials = Array.from({ length: Math.min(5, Math.max(2, Number(typed.trials) || 2)) }, (_, index) => index);
  const keys = trials.flatMap((trial) =>
    people.flatMap((person) => parts.map((part) => ({ person, part, key: `${person}|${part}|${trial}`, trial }))),
  );
  const read = (key: string): number | undefined => {
    const parsed = parseQuantity(typed.cells[key] ?? '', tool.quantity, 'reading', tool.unit);
    return parsed.ok ? parsed.quantity.base : undefined;
  };
  const next = keys.find(({ key }) => read(key) === undefined);
  const readings = keys.flatMap(({ person, part, key }) => {
    const reading = read(key);
    return reading === undefined ? [] : [{ person, part, reading }];
  });
  const result = next === undefined && readings.length >= 8 ? workings.run('measure.gauge-rr', { readings }) : undefined;
  const [text, setText] = useState('');
  const take = (event: FormEvent): void => {
    event.preventDefault();
    if (!next || !parseQuantity(text, tool.quantity, 'reading', tool.unit).ok) return;
    setTyped({ ...typed, cells: { ...typed.cells, [next.key]: text } });
    setText('');
  };
  const put = (): void => {
    const body: StudyBody = { id, readings };
    void send(() => ask(ENDPOINTS.tools.study, { id: tool.id, body })).then((ok) => {
      if (!ok) return;
      setTyped(undefined);
      void refreshTool();
    });
  };
  return (
    <section className="mt-3">
      <h2>Gauge study</h2>
      {tool.studies.map((study) => (
        <p key={study.id} className="mb-1">
          {dayWords(study.at)}, {study.person}: spread {formatQuantity(study.sigma, 'length', 'µm')},{' '}
          {formatQuantity(study.share, 'ratio', '%')} of all variation, tells {study.categories} sizes apart
        </p>
      ))}
      {open ? (
        <>
          <div className="row">
            {(
              [
                ['people', 'People, parted by ;'],
                ['parts', 'Parts'],
                ['trials', 'Times each'],
              ] as const
            ).map(([name, label]) => (
              <div key={name} className="col-4 mb-2">
                <label className="form-label" htmlFor={`study-${name}`}>
                  {label}
                </label>
                <input
                  id={`study-${name}`}
                  className="form-control"
                  maxLength={120}
                  value={typed[name]}
                  onChange={(event) => setTyped({ ...typed, [name]: event.target.value })}
                />
              </div>
            ))}
          </div>
          {next ? (
            <form className="work" onSubmit={take}>
              <label className="form-label" htmlFor="study-reading">
                {next.person} measures part {next.part}, time {next.trial + 1}; {keys.length - readings.length} to go
              </label>
              <div className="d-flex gap-2 align-items-baseline">
                <input
                  id="study-reading"
                  className="form-control num-field"
                  inputMode="decimal"
                  autoComplete="off"
                  value={text}
                  onChange={(event) => setText(event.target.value)}
                />
                <span className="fig fs-3">{tool.unit}</span>
                <button type="submit" className="btn btn-primary">
                  Take it
                </button>
              </div>
            </form>
          ) : null}
          {result?.ok ? (
            <div className="work">
              <p className="mb-1">
                <span className="fig fs-3">{formatQuantity(Number(result.run.output['share']), 'ratio', '%')}</span> of all variation is the
                gauge; it tells <span className="fig fs-4">{Number(result.run.output['categories'])}</span> sizes apart.{' '}
                {String(result.run.output['what'])}
              </p>
              {result.run.drawing ? <Drawn drawing={result.run.drawing} name="Gauge study" /> : null}
              <Wrong error={error} />
              <button type="button" className="btn btn-primary" disabled={busy} onClick={put}>
                Keep it: this is the tool’s spread from now on
              </button>
            </div>
          ) : null}
          {result && !result.ok ? <p className="v-out">{result.issues.map(wording).join('; ')}</p> : null}
          <button type="button" className="btn btn-quiet" onClick={() => setTyped(undefined)}>
            Begin again
          </button>
        </>
      ) : (
        <button type="button" className="btn btn-plain" onClick={() => setOpen(true)}>
          Run a study
        </button>
      )}
    </section>
  );
}
