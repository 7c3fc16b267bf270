import type { Contradiction, Slip } from '@jubb/core';
import { useEffect, useRef, type ReactElement } from 'react';

const SLIP_WORDS: Readonly<Record<Slip, string>> = {
  decimal: 'a slip of the decimal sign',
  'half turn': 'half a millimetre of the micrometer missed',
  unit: 'in another unit',
  sign: 'the dial went the other way',
  apart: 'nothing explains it',
};

interface DoubtedProps {
  readonly doubt: Contradiction;
  readonly typed: string;
  /** The figure that was likely meant, as one reads it. */
  readonly meant: string | undefined;
  readonly onMeant: () => void;
  readonly onTyped: () => void;
  readonly onAgain: () => void;
}

/** Asks at once about a reading that does not fit its brothers. */
export function Doubted({ doubt, typed, meant, onMeant, onTyped, onAgain }: DoubtedProps): ReactElement {
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => first.current?.focus(), []);
  return (
    <div className="care" role="alert">
      <b>Is that so?</b>
      {typed} is far from the others: {SLIP_WORDS[doubt.slip]}
      {meant === undefined ? '' : `, ${meant} was meant`}?
      <div className="keys">
        {meant === undefined ? null : (
          <button ref={first} type="button" className="btn btn-plain" onClick={onMeant}>
            {meant} was meant
          </button>
        )}
        <button ref={meant === undefined ? first : undefined} type="button" className="btn btn-plain" onClick={onAgain}>
          Measure again
        </button>
        <button type="button" className="btn btn-plain" onClick={onTyped}>
          It is {typed}
        </button>
      </div>
    </div>
  );
}
