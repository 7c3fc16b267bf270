import { upsetWords, type Upsetting } from '@jubb/book';
import { formatQuantity } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { FigureField, readFigure } from '../../kit/figure-field.tsx';
import { useUnits } from '../../kit/units.ts';
import { useHere } from '../../job/use-job.ts';

const MOST = 1e6;

/** What is to be read again because something was out of the way: a level, air, a tension, a line. */
export function Upset(): ReactElement | null {
  const { state } = useHere();
  if (state.upset.length === 0) return null;
  return (
    <section>
      <h2>To be read again</h2>
      <ul className="list-unstyled mb-1">
        {state.upset.map((one) => (
          <li key={one.entryId} className="mb-2">
            <b className="brass">{upsetWords(one.makes)}</b> <span className="soft">({one.moved} was out of the way)</span>
            {one.found === undefined ? null : (
              <span className="v-out"> read {formatQuantity(one.found, one.makes.readAs)}, which is not right yet</span>
            )}
            {one.isBack ? <ReadAgain of={one} /> : <span className="soft">, once it is back</span>}
          </li>
        ))}
      </ul>
    </section>
  );
}

function ReadAgain({ of: { entryId, makes } }: { readonly of: Upsetting }): ReactElement {
  const { keep } = useHere();
  const units = useUnits();
  const [text, setText] = useState('');
  const { what, readAs } = makes;
  const { base } = readFigure(text, readAs, units.symbol(readAs), { least: -MOST, most: MOST });
  const put = (): void => {
    if (base === undefined) return;
    keep({ kind: 'set-again', payload: { moved: entryId, what, readAs, figure: base } });
    setText('');
  };
  return (
    <div className="d-flex gap-2 align-items-end">
      <FigureField label={`Read: ${what}`} quantity={readAs} text={text} onText={setText} onEnter={put} least={-MOST} most={MOST} />
      <Button variant="plain" disabled={base === undefined} onClick={put}>
        Keep
      </Button>
    </div>
  );
}
