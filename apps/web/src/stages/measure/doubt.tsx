import type { Doubt } from '@jubb/book';
import type { Step } from '@jubb/sheet';
import { useState, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import { FigureField, readFigure } from '../../kit/figure-field.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { useUnits } from '../../kit/units.ts';
import { useHere } from '../../job/use-job.ts';
import { RecorderLayout } from '../../job/recorder/layout.tsx';
import { NoNumber } from '../../job/recorder/no-number.tsx';

interface DoubtGateProps {
  readonly step: Step;
  readonly doubt: Doubt;
}

interface Typed {
  readonly figures: Readonly<Record<string, string>>;
  readonly source: string;
}

/** A staged joint has no one number that could be worked out. */
const NUMBER = 'torque.figure';

const NOTHING: Typed = { figures: {}, source: '' };

/** Before a value is used that nobody stands for: it is taken as it is, or the right one is given. */
export function DoubtGate({ step, doubt }: DoubtGateProps): ReactElement {
  const { job, person, keep } = useHere();
  const [typed, setTyped] = useDraft<Typed>(`${job.id}.${doubt.list}.${doubt.line}.found`, NOTHING);
  const [tried, setTried] = useState(false);
  const units = useUnits();
  const written = doubt.figures.filter(({ field }) => (typed.figures[field] ?? '').trim() !== '');
  const figures = written.flatMap(({ field, quantity }) => {
    const { text: figure } = readFigure(typed.figures[field] ?? '', quantity, units.symbol(quantity));
    return figure === undefined ? [] : [{ field, figure }];
  });
  const sourceMissing = typed.source.trim() === '';
  const stands = doubt.figures.map(({ figure }) => figure).filter((figure) => figure !== '');
  if (person.role === 'apprentice')
    return <RecorderLayout say={`${doubt.name}: nobody stands for this number. Ask a mechanic or the foreman.`} />;
  const line = { list: doubt.list, line: doubt.line };
  const take = (): void => keep({ kind: 'value-taken', payload: line, step: step.ref });
  const give = (): void => {
    setTried(true);
    if (figures.length < written.length || figures.length === 0 || sourceMissing) return;
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
        written.length > 0
          ? { label: 'Go on by this one', run: give }
          : { label: stands.length > 0 ? 'Use it as it stands' : 'By hand, without a number', run: take }
      }
    >
      <div className="d-flex flex-wrap gap-3 align-items-start">
        {doubt.figures.map(({ field, label, quantity }) => (
          <FigureField
            key={field}
            label={`Found: ${label.toLowerCase()}`}
            quantity={quantity}
            text={typed.figures[field] ?? ''}
            onText={(text) => setTyped({ ...typed, figures: { ...typed.figures, [field]: text } })}
            onEnter={give}
          />
        ))}
        <div className="flex-grow-1">
          <FormLabel htmlFor={`${id}-source`}>Where it stands, or who says so</FormLabel>
          <FormControl
            id={`${id}-source`}
            className={tried && sourceMissing ? 'is-invalid' : ''}
            aria-invalid={tried && sourceMissing}
            aria-describedby={`${id}-source-problem`}
            autoComplete="off"
            maxLength={200}
            value={typed.source}
            onChange={({ target }) => setTyped({ ...typed, source: target.value })}
            onKeyDown={(event) => {
              if (event.key === 'Enter') give();
            }}
          />
          <div id={`${id}-source-problem`} className="v-out" aria-live="polite">
            {tried && sourceMissing ? 'Say where it stands: a book and its page, a plate, a person' : null}
          </div>
        </div>
      </div>
      <p className="soft mt-2 mb-0">It is used on this job from now on, and goes to the foreman as a proposal for the sheet.</p>
      {doubt.figures.some(({ field }) => field === NUMBER) ? <NoNumber step={step} joint={doubt.line} /> : null}
    </RecorderLayout>
  );
}
