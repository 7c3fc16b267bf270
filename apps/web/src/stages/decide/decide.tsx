import { failedWords, isForemansWord, reworkOf, type Decision } from '@jubb/book';
import { CAUSE_SORTS, FATES, type Fate, type Step } from '@jubb/sheet';
import { useState, type ReactElement } from 'react';
import Table from 'react-bootstrap/Table';
import Button from 'react-bootstrap/Button';
import { AskLine } from '../../kit/ask-line.tsx';
import { Care } from '../../kit/pieces.tsx';
import { useHere } from '../../job/use-job.ts';
import { RecorderLayout } from '../../job/recorder/layout.tsx';

const WEIGHT = ['out', 'unsure', undefined];

/** What is out stands first, then what is unsure, then the rest as the sheet has it. */
function gravestFirst(decisions: readonly Decision[]): readonly Decision[] {
  return decisions.toSorted((a, b) => WEIGHT.indexOf(a.verdict) - WEIGHT.indexOf(b.verdict));
}

/** Part by part: what is proposed and why; the mechanic decides, and says why when it is otherwise. */
export function DecideRecorder({ step }: { readonly step: Step }): ReactElement {
  const { job, state, person, keep } = useHere();
  const [asking, setAsking] = useState<{ decision: Decision; fate: Fate }>();
  const [failed, setFailed] = useState<Decision>();
  const [notMine, setNotMine] = useState<Decision>();
  const mayDecide = person.role === 'mechanic' || person.role === 'foreman';
  const left = state.decisions.filter((decision) => !decision.entry);
  const draft = ({ part }: Decision, fate: Fate, reason: string) => ({
    kind: 'decision' as const,
    payload: { part: part.ref, fate, quantity: part.quantity, ...(reason ? { reason } : {}) },
    step: step.ref,
  });
  const choose = (decision: Decision, fate: Fate): void => {
    const isNotMine = isForemansWord(decision.part, fate) && person.role !== 'foreman';
    setNotMine(isNotMine ? decision : undefined);
    if (isNotMine) return;
    if (fate === decision.proposed) keep(draft(decision, fate, decision.because));
    else setAsking({ decision, fate });
  };
  return (
    <>
      <RecorderLayout
        primary={
          left.length > 0
            ? {
                label: `Take the ${left.length === state.decisions.length ? '' : 'other '}${left.length} as proposed`,
                run: () => keep(...left.map((decision) => draft(decision, decision.proposed, decision.because))),
                disabled: !mayDecide,
              }
            : undefined
        }
      >
        {mayDecide ? null : <p className="soft">A mechanic or the foreman decides.</p>}
        {notMine ? (
          <Care>{notMine.part.name}: renewed each time by the sheet. That it goes back is the foreman’s word: let them take over (I).</Care>
        ) : null}
        <Table>
          <thead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">Pieces</th>
              <th scope="col">Proposed</th>
              <th scope="col">Decided</th>
            </tr>
          </thead>
          <tbody>
            {gravestFirst(state.decisions).map((decision) => (
              <tr key={decision.part.ref}>
                <th scope="row" className="fw-normal">
                  {decision.part.name} <span className="soft text-nowrap">{decision.part.number}</span>
                </th>
                <td className="fig fs-5">{decision.part.quantity}</td>
                <td>
                  {decision.verdict ? <b className={`v-${decision.verdict}`}>{decision.verdict}: </b> : null}
                  {decision.proposed}, <span className="soft">{decision.because}</span>
                  {reworkOf(state.sheet, decision.part.ref, state.live).map(({ limit, says, leaves }) => (
                    <div key={limit} className="soft">
                      {limit}: {[says, leaves].filter(Boolean).join(' ')}
                    </div>
                  ))}
                </td>
                <td>
                  <div className="d-flex gap-1" role="group" aria-label={`Decide ${decision.part.name}`}>
                    {FATES.map((fate) => (
                      <button
                        key={fate}
                        type="button"
                        className={`btn ${decision.entry?.payload.fate === fate ? 'btn-primary' : 'btn-quiet'}`}
                        aria-pressed={decision.entry?.payload.fate === fate}
                        disabled={!mayDecide}
                        onClick={() => choose(decision, fate)}
                      >
                        {fate}
                      </button>
                    ))}
                  </div>
                  {decision.entry?.payload.fate === 'renew' && decision.part.policy !== 'renew' ? (
                    <Button variant="quiet" disabled={!mayDecide} onClick={() => setFailed(decision)}>
                      {decision.entry.payload.cause ? failedWords(decision.entry.payload.cause) : 'Why did it fail?'}
                      <span className="visually-hidden"> {decision.part.name}</span>
                    </Button>
                  ) : null}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </RecorderLayout>
      {asking ? (
        <AskLine
          about={`${job.id}.${asking.decision.part.ref}`}
          title={`${asking.decision.part.name}: ${asking.fate}, although ${asking.decision.proposed} is proposed`}
          act={`Decide: ${asking.fate}`}
          fields={() => [{ name: 'reason', label: 'Why', required: true, hint: 'It stands in the report.', longest: 500 }]}
          onClose={() => setAsking(undefined)}
          onDone={({ reason = '' }) => {
            keep(draft(asking.decision, asking.fate, reason));
            setAsking(undefined);
          }}
        />
      ) : null}
      {failed ? (
        <AskLine
          about={`${job.id}.${failed.part.ref}`}
          title={`${failed.part.name}: why did it fail?`}
          act="Keep it"
          choice={{ name: 'sort', label: 'How sure', options: CAUSE_SORTS.map((sort) => [sort, sort] as const) }}
          fields={() => [
            { name: 'words', label: 'What shows it', hint: 'What the magnet held, a colour, where it is worn.', longest: 300 },
          ]}
          onClose={() => setFailed(undefined)}
          onDone={({ sort = 'unknown', words = '' }) => {
            const { fate, quantity, reason } = failed.entry!.payload;
            const cause = { sort, ...(words.trim() ? { words: words.trim() } : {}) };
            keep({
              kind: 'decision',
              payload: { part: failed.part.ref, fate, quantity, ...(reason ? { reason } : {}), cause },
              step: step.ref,
            });
            setFailed(undefined);
          }}
        />
      ) : null}
    </>
  );
}
