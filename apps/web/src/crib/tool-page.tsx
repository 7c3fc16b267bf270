import { ENDPOINTS, type CheckPoint, type StudyBody, ToolCheckBody, type ToolView } from '@jubb/wire';
import { formatQuantity, parseQuantity, workings, wording } from '@jubb/core';
import { useQuery } from '@tanstack/react-query';
import { useState, type FormEvent, type ReactElement } from 'react';
import { Link, useParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import { ask } from '../link/client.ts';
import { refresh, useSession } from '../link/queries.ts';
import { Drawn } from '../drawings/drawn.tsx';
import { Care, Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useDraft } from '../kit/prefs.ts';
import { offerUndo } from '../kit/undo.ts';
import { useSend } from '../kit/use-send.ts';
import { dayWords, inDays, shopToday } from '../kit/days.ts';
import { useWatch } from 'react-hook-form';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { Field } from '../kit/field.tsx';
import { useSameId } from '../kit/same-id.ts';
import { ToolForm } from './tool-form.tsx';

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
  const [isOpen, setOpen] = useState(false);
  const today = shopToday();
  const isDue = tool.calibrationDue !== null && tool.calibrationDue < today;
  const lend = (personId: string | null): void => {
    const before = tool.holder?.id ?? null;
    void send(async () => {
      const { version } = await ask(ENDPOINTS.tools.lend, { id: tool.id, body: { version: tool.version, personId } });
      offerUndo(personId === null ? `${tool.tag} is back in the crib` : `${tool.tag} is with you`, async () => {
        await ask(ENDPOINTS.tools.lend, { id: tool.id, body: { version, personId: before } });
        await refreshTool();
      });
    }).then(refreshTool);
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
                <Button variant="plain" disabled={busy} onClick={() => lend(null)}>
                  It is back
                </Button>
              ) : null}
              {session?.person.role === 'foreman' ? (
                <Button variant="plain" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
                  Change it
                </Button>
              ) : null}
              {session && tool.holder?.id !== session.person.id ? (
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

interface CheckTyped {
  points: string;
  against: string;
  certificate: string;
  due: string;
  verdict: 'good' | 'out';
}

/** Pairs of shown and true, one to a line; a line that is none is left undefined. */
function pairs(text: string, tool: ToolView): readonly (CheckPoint | undefined)[] {
  return text
    .split('\n')
    .filter((line) => line.trim() !== '')
    .map((line) => {
      const [shown, truth] = line
        .trim()
        .split(/\s*;\s*|\s+(?=[-+\d])/u)
        .map((part) => parseQuantity(part, tool.quantity, 'point', tool.unit));
      return shown?.ok && truth?.ok ? { shown: shown.quantity.base, true: truth.quantity.base } : undefined;
    });
}

function CheckForm({ tool }: { readonly tool: ToolView }): ReactElement {
  const [due] = useState(() => inDays(tool.everyDays ?? 365));
  const { idOf, isDone } = useSameId();
  const nothing: CheckTyped = { points: '', against: '', certificate: '', due, verdict: 'good' };
  const form = useAskForm<CheckTyped, ToolCheckBody>({
    type: ToolCheckBody,
    draft: `check.${tool.id}`,
    initial: nothing,
    toBody: (typed) => ({
      id: idOf(typed),
      verdict: typed.verdict,
      // A line that is no pair has no figure: it is refused by its place.
      points: pairs(typed.points, tool).map((point) => point ?? { shown: Number.NaN, true: Number.NaN }),
      against: typed.against,
      ...(typed.certificate.trim() ? { certificate: typed.certificate.trim() } : {}),
      ...(typed.verdict === 'good' && typed.due ? { due: typed.due } : {}),
    }),
    onSend: async (body) => {
      await ask(ENDPOINTS.tools.check, { id: tool.id, body });
      isDone();
      form.begin(nothing);
      await refreshTool();
    },
  });
  const points = pairs(useWatch({ control: form.form.control, name: 'points' }), tool);
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
  const keep = (found: CheckTyped['verdict']): void => {
    form.form.setValue('verdict', found);
    void form.keep();
  };
  return (
    <Asking
      of={form}
      className="work"
      keys={
        <div className="keys">
          <Button variant="primary" disabled={form.busy} onClick={() => keep('good')}>
            It is good
          </Button>
          <Button variant="plain" disabled={form.busy} onClick={() => keep('out')}>
            It is out
          </Button>
        </div>
      }
    >
      <h2>Check it</h2>
      <Field
        of="check"
        name="points"
        label={`Shown and true, one pair to a line, in ${tool.unit}`}
        as="textarea"
        className="fig"
        rows={3}
        placeholder={tool.quantity === 'torque' ? '40 39.4' : '25.000 25.001'}
      />
      {wrong === -1 ? null : <div className="v-out">Line {wrong + 1} is no pair of figures</div>}
      {verdict ? (
        <p className={`mb-1 v-${verdict}`}>
          By ISO 6789-1: <b>{verdict}</b>, worst {formatQuantity(Number(judged?.ok ? judged.run.output['worst'] : 0), 'ratio', '%')}
        </p>
      ) : null}
      {judged && !judged.ok ? <div className="v-out">{judged.issues.map(wording).join('; ')}</div> : null}
      <div className="row mt-2">
        <Field of="check" name="against" label="Held against" wrap="col-6 mb-2" maxLength={200} />
        <Field of="check" name="certificate" label="Certificate" wrap="col-6 mb-2" maxLength={80} />
        <Field of="check" name="due" label="Next check" wrap="col-6 mb-2" type="date" />
      </div>
    </Asking>
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
                <FormLabel htmlFor={`study-${name}`}>{label}</FormLabel>
                <FormControl
                  id={`study-${name}`}
                  maxLength={120}
                  value={typed[name]}
                  onChange={(event) => setTyped({ ...typed, [name]: event.target.value })}
                />
              </div>
            ))}
          </div>
          {next ? (
            <form className="work" onSubmit={take}>
              <FormLabel htmlFor="study-reading">
                {next.person} measures part {next.part}, time {next.trial + 1}; {keys.length - readings.length} to go
              </FormLabel>
              <div className="d-flex gap-2 align-items-baseline">
                <FormControl
                  id="study-reading"
                  className="num-field"
                  inputMode="decimal"
                  autoComplete="off"
                  value={text}
                  onChange={(event) => setText(event.target.value)}
                />
                <span className="fig fs-3">{tool.unit}</span>
                <Button type="submit" variant="primary">
                  Take it
                </Button>
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
              <Button variant="primary" disabled={busy} onClick={put}>
                Keep it: this is the tool’s spread from now on
              </Button>
            </div>
          ) : null}
          {result && !result.ok ? <p className="v-out">{result.issues.map(wording).join('; ')}</p> : null}
          <Button variant="quiet" onClick={() => setTyped(undefined)}>
            Begin again
          </Button>
        </>
      ) : (
        <Button variant="plain" onClick={() => setOpen(true)}>
          Run a study
        </Button>
      )}
    </section>
  );
}
