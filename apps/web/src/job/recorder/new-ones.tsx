import type { EachTime, NewPart } from '@jubb/book';
import { find, type Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import { Link } from 'react-router';
import { useHere } from '../use-job.ts';
import { LineField } from '../../kit/line-field.tsx';
import { Care } from '../../kit/pieces.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { pieces } from '../../stores/pieces.ts';
import { RecorderLayout, type Act } from './layout.tsx';
import { useNewParts, type Source } from './use-new-parts.ts';

interface NewFastenersProps {
  readonly step: Step;
  readonly of: EachTime;
  /** A trial with the old ones comes first; nothing where there is no such thing. */
  readonly onTrial: (() => void) | undefined;
}

/** Fasteners, rings, clips or pins that are new each time, before the first goes in. */
export function NewFasteners({ step, of, onTrial }: NewFastenersProps): ReactElement {
  const { sheet } = useHere();
  const part = find(sheet.parts, of.part);
  return (
    <NewOnes
      step={step}
      parts={part ? [{ part, pieces: of.count, here: 0 }] : []}
      others={onTrial ? [{ label: 'A trial first, with the old ones', key: 'x', run: onTrial }] : []}
    >
      <Care title="New each time">{of.name}: the old ones held once, and do not go back.</Care>
    </NewOnes>
  );
}

interface NewOnesProps {
  readonly step: Step;
  readonly parts: readonly NewPart[];
  readonly children?: ReactElement;
  readonly others?: readonly Act[];
}

/** What a step puts in new: taken out of stores by this, or said where else it comes from, before it goes in. */
export function NewOnes({ step, parts, children, others = [] }: NewOnesProps): ReactElement {
  const { job, keep } = useHere();
  const { sources, elsewhere, isLooking, isBlind, drafts } = useNewParts(parts);
  const [typed, setTyped] = useDraft(`${job.id}.${step.ref}.new`, '');
  const said = typed.trim();
  const mustSay = elsewhere.length > 0;
  const cannot = said === '' && (isLooking || mustSay);
  const isTaken = !mustSay && said === '' && sources.some(({ isOut }) => !isOut);
  const go = (): void => {
    if (cannot) return;
    keep(...drafts(said, step.ref));
    setTyped(undefined);
  };
  return (
    <RecorderLayout
      say="New parts first: in hand, and held against the old ones."
      primary={{ label: isTaken ? 'Take out of stores' : 'New ones in hand', run: go, disabled: cannot }}
      others={others}
    >
      {children}
      <ul className="list-unstyled mb-2">
        {sources.map((source) => (
          <li key={source.part.part.ref}>
            <b>{source.words}</b>{' '}
            <span className="soft">{isLooking ? 'Looking at the shelves …' : isBlind ? '' : sourceWords(source)}</span>
          </li>
        ))}
      </ul>
      {isBlind ? <p className="soft mb-1">The shelves cannot be seen now.</p> : null}
      <LineField
        label={
          mustSay ? `Where they come from: ${elsewhere.map(({ words }) => words).join(', ')}` : 'Where they come from, if not out of stores'
        }
        longest={200}
        placeholder="From the kit, brought by the customer …"
        text={typed}
        onText={setTyped}
        onEnter={go}
      />
      {mustSay ? (
        <p className="soft mb-0">
          Not come yet? Put the job on hold (H). <Link to={`/jobs/${job.id}/parts`}>Parts to have</Link>
        </p>
      ) : null}
    </RecorderLayout>
  );
}

function sourceWords({ isOut, shelf }: Source): string {
  if (isOut) return 'out of stores for this job';
  if (!shelf) return 'not on the shelf';
  const free = pieces(shelf.onHand - shelf.reserved + shelf.reservedHere, shelf);
  return `${shelf.reservedHere > 0 ? 'kept for this job' : `${free} free`}${shelf.location ? `, shelf ${shelf.location}` : ''}`;
}
