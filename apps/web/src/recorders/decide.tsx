import { FATES, type Decision, type Fate, type Step } from '@jubb/contract/job';
import { useState, type ReactElement } from 'react';
import { AskLine } from '../kit/ask-line.tsx';
import { useHere } from '../job/use-job.ts';
import { RecorderLayout } from './layout.tsx';

/** Part by part: what is proposed and why; the mechanic decides, and says why when it is otherwise. */
export function DecideRecorder({ step }: { readonly step: Step }): ReactElement {
  const { state, person, keep } = useHere();
  const [asking, setAsking] = useState<{ decision: Decision; fate: Fate }>();
  const mayDecide = person.role === 'mechanic' || person.role === 'foreman';
  const left = state.decisions.filter((decision) => !decision.entry);
  const draft = ({ part }: Decision, fate: Fate, reason: string) => ({
    kind: 'decision' as const,
    payload: { part: part.ref, fate, quantity: part.quantity, ...(reason ? { reason } : {}) },
    step: step.ref,
  });
  const choose = (decision: Decision, fate: Fate): void => {
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
        <table className="table">
          <thead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">Pieces</th>
              <th scope="col">Proposed</th>
              <th scope="col">Decided</th>
            </tr>
          </thead>
          <tbody>
            {state.decisions.map((decision) => (
              <tr key={decision.part.ref}>
                <th scope="row" className="fw-normal">
                  {decision.part.name} <span className="soft text-nowrap">{decision.part.number}</span>
                </th>
                <td className="fig fs-5">{decision.part.quantity}</td>
                <td>
                  {decision.proposed}, <span className="soft">{decision.because}</span>
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
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </RecorderLayout>
      {asking ? (
        <AskLine
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
    </>
  );
}
