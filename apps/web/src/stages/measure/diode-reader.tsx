import { readOpen, workings, wording, type WorkingRun } from '@jubb/core';
import { useEffect, useRef, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import Table from 'react-bootstrap/Table';
import FormControl from 'react-bootstrap/FormControl';
import Button from 'react-bootstrap/Button';
import { Bridge } from '../../drawings/bridge.tsx';
import { VerdictShape } from '../../drawings/limit-strip.tsx';
import { useHere } from '../../job/use-job.ts';
import { useLines } from '../../link/use-lines.ts';
import { Care, Title } from '../../kit/pieces.tsx';
import { useDraft } from '../../kit/prefs.ts';

const WAYS = ['forward', 'reverse'] as const;
const DIODES = ['+1', '+2', '+3', '−1', '−2', '−3'] as const;

type Readings = Readonly<Record<string, string>>;

/** Diode by diode, both ways: the next field has the focus, the meter or the keys fill it, and the bad one is drawn. */
export function DiodeReader({ under }: { readonly under: (run: WorkingRun) => ReactElement | null }): ReactElement {
  const { job } = useHere();
  const [typed, setTyped] = useDraft<Readings>(`${job.id}.diodes`, {});
  const [type, setType] = useDraft<string>(`${job.id}.diode-type`, 'silicon');
  const fields = useRef(new Map<string, HTMLInputElement>());
  const order = DIODES.flatMap((diode) => WAYS.map((way) => `${diode} ${way}`));
  const next = order.find((field) => !typed[field]?.trim());
  const set = (field: string, text: string): void => setTyped({ ...typed, [field]: text });
  const goOn = (field: string): void => {
    const after = order.slice(order.indexOf(field) + 1).find((one) => !typed[one]?.trim());
    fields.current.get(after ?? '')?.focus();
  };
  // The first open field, once: a reload goes on where it stopped.
  const begun = useRef(next);
  useEffect(() => fields.current.get(begun.current ?? '')?.focus(), []);
  useLines(true, (line) => {
    const field = order.find((one) => fields.current.get(one) === document.activeElement);
    if (field === undefined || line.quantity !== 'voltage' || line.marked !== undefined) return;
    set(field, line.base === null ? 'OL' : `${Number(line.base.toFixed(4))} V`);
    goOn(field);
  });
  const whole = DIODES.filter((diode) => WAYS.every((way) => typed[`${diode} ${way}`]?.trim()));
  const result =
    whole.length > 0
      ? workings.run('alternator.diodes', {
          type,
          readings: whole.map((diode) => ({ diode, forward: typed[`${diode} forward`], reverse: typed[`${diode} reverse`] })),
        })
      : undefined;
  const output = result?.ok
    ? (result.run.output as {
        verdict: string;
        bad: string;
        what: string;
        states: readonly { diode: string; state: string; why: string }[];
      })
    : undefined;
  const isDone = whole.length === DIODES.length;
  return (
    <>
      <Title sub="Meter on its diode range, stator leads off. Type what it shows, OL too; Enter goes on.">Which diode is bad?</Title>
      {workings.describe('alternator.diodes')?.cautions.map((words) => (
        <Care key={words}>{words}</Care>
      ))}
      <div className="two form-first">
        <div className="work">
          <FormLabel htmlFor="diode-type">Diodes</FormLabel>
          <FormSelect id="diode-type" className="mb-2" value={type} onChange={(event) => setType(event.target.value)}>
            <option value="silicon">silicon, pressed or soldered</option>
            <option value="schottky">low-loss</option>
          </FormSelect>
          <Table>
            <thead>
              <tr>
                <th scope="col">Diode</th>
                <th scope="col">Forward</th>
                <th scope="col">Reverse</th>
              </tr>
            </thead>
            <tbody>
              {DIODES.map((diode) => (
                <tr key={diode}>
                  <th scope="row" className="fig fs-4">
                    {diode}
                  </th>
                  {WAYS.map((way) => {
                    const field = `${diode} ${way}`;
                    const text = typed[field] ?? '';
                    const isWrong = text.trim() !== '' && Number.isNaN(readOpen(text, 'voltage'));
                    return (
                      <td key={way}>
                        <FormControl
                          ref={(element) => {
                            if (element) fields.current.set(field, element);
                            else fields.current.delete(field);
                          }}
                          className={`fig fs-4 ${isWrong ? 'is-invalid' : ''}`}
                          aria-label={`${diode}, ${way}`}
                          aria-invalid={isWrong}
                          maxLength={20}
                          autoComplete="off"
                          value={text}
                          onChange={(event) => set(field, event.target.value)}
                          onKeyDown={(event) => {
                            if (event.key !== 'Enter') return;
                            event.preventDefault();
                            goOn(field);
                          }}
                        />
                        {isWrong ? <div className="v-out">volts, or OL</div> : null}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </Table>
          <Button variant="quiet" onClick={() => setTyped(undefined)}>
            Begin again
          </Button>
        </div>
        <div aria-live="polite">
          <div className="drawing mb-2" style={{ maxWidth: 420 }}>
            <Bridge
              name="Rectifier"
              diodes={DIODES.map((name) => ({ name, state: output?.states.find(({ diode }) => diode === name)?.state ?? '' }))}
              next={next?.split(' ')[0]}
            />
          </div>
          {result && !result.ok ? (
            <ul className="v-out">
              {result.issues.map((issue) => (
                <li key={issue.field}>{wording(issue)}</li>
              ))}
            </ul>
          ) : null}
          {output ? (
            <>
              <p className="mb-1">
                <b className={`fig fs-2 v-${output.verdict}`}>
                  <VerdictShape verdict={output.verdict} /> {output.bad === 'none' ? (isDone ? 'all sound' : 'sound so far') : output.bad}
                </b>
              </p>
              <p>{output.what}</p>
              {isDone && result?.ok ? under(result.run) : <p className="soft">{DIODES.length - whole.length} to go.</p>}
            </>
          ) : null}
        </div>
      </div>
    </>
  );
}
