import { formatQuantity, parseQuantity, workings, wording } from '@jubb/core';
import { ENDPOINTS, type StudyBody, type ToolView } from '@jubb/wire';
import { useState, type FormEvent, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import FormControl from 'react-bootstrap/FormControl';
import FormLabel from 'react-bootstrap/FormLabel';
import { v7 as uuid } from 'uuid';
import { Drawn } from '../drawings/drawn.tsx';
import { dayWords } from '../kit/days.ts';
import { Wrong } from '../kit/pieces.tsx';
import { useDraft } from '../kit/prefs.ts';
import { useSend } from '../kit/use-send.ts';
import { ask } from '../link/client.ts';
import { useSession } from '../link/queries.ts';
import { refreshTool } from './refresh-tool.ts';

interface StudyTyped {
  readonly people: string;
  readonly parts: string;
  readonly trials: string;
  /** Cells by person, part and trial. */
  readonly cells: Readonly<Record<string, string>>;
}

/** A gauge study through the screen: each person measures each part in turn, without seeing what was read before. */
export function Study({ tool }: { readonly tool: ToolView }): ReactElement {
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
