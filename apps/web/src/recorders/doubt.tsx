import { type Doubt, type Step } from '@jubb/contract/job';
import type { ReactElement } from 'react';
import { useDraft } from '../kit/prefs.ts';
import { useHere } from '../job/use-job.ts';
import { RecorderLayout } from './layout.tsx';

interface DoubtGateProps {
  readonly step: Step;
  readonly doubt: Doubt;
}

interface Typed {
  readonly figures: Readonly<Record<string, string>>;
  readonly source: string;
}

const NOTHING: Typed = { figures: {}, source: '' };

/** Before a value is used that nobody stands for: it is taken as it is, or the right one is given. */
export function DoubtGate({ step, doubt }: DoubtGateProps): ReactElement {
  const { job, person, keep } = useHere();
  const [typed, setTyped] = useDraft<Typed>(`${job.id}.${doubt.list}.${doubt.line}.found`, NOTHING);
  const figures = doubt.figures.flatMap(({ field }) => {
    const figure = (typed.figures[field] ?? '').trim();
    return figure === '' ? [] : [{ field, figure }];
  });
  const stands = doubt.figures.map(({ figure }) => figure).filter((figure) => figure !== '');
  if (person.role === 'apprentice')
    return <RecorderLayout say={`${doubt.name}: nobody stands for this number. Ask a mechanic or the foreman.`} />;
  const line = { list: doubt.list, line: doubt.line };
  const take = (): void => keep({ kind: 'value-taken', payload: line, step: step.ref });
  const give = (): void => {
    if (figures.length === 0 || typed.source.trim() === '') return;
    keep({ kind: 'value-found', payload: { ...line, figures, source: typed.source.trim() }, step: step.ref });
    setTyped(undefined);
  };
  const id = `found-${doubt.line}`;
  return (
    <RecorderLayout
      say={
        stands.length > 0
          ? `${doubt.name}: ${stands.join(' to ')}. Only somebody’s word: ${doubt.source}. Find it in a book, or go on by it and say so.`
          : `${doubt.name}: the sheet has no number. Give the one you found, or go on by hand.`
      }
      primary={
        figures.length > 0
          ? { label: 'Go on by this one', run: give, disabled: typed.source.trim() === '' }
          : { label: stands.length > 0 ? 'Use it as it stands' : 'By hand, without a number', run: take }
      }
    >
      <div className="d-flex flex-wrap gap-3 align-items-end">
        {doubt.figures.map(({ field, label }) => (
          <div key={field}>
            <label className="form-label" htmlFor={`${id}-${field}`}>
              Found: {label.toLowerCase()}
            </label>
            <input
              id={`${id}-${field}`}
              className="form-control num-field"
              autoComplete="off"
              maxLength={60}
              value={typed.figures[field] ?? ''}
              onChange={({ target }) => setTyped({ ...typed, figures: { ...typed.figures, [field]: target.value } })}
              onKeyDown={(event) => {
                if (event.key === 'Enter') give();
              }}
            />
          </div>
        ))}
        <div className="flex-grow-1">
          <label className="form-label" htmlFor={`${id}-source`}>
            Where it stands, or who says so
          </label>
          <input
            id={`${id}-source`}
            className="form-control"
            autoComplete="off"
            maxLength={200}
            value={typed.source}
            onChange={({ target }) => setTyped({ ...typed, source: target.value })}
            onKeyDown={(event) => {
              if (event.key === 'Enter') give();
            }}
          />
        </div>
      </div>
      <p className="soft mt-2 mb-0">It is used on this job from now on, and goes to the foreman as a proposal for the sheet.</p>
    </RecorderLayout>
  );
}
