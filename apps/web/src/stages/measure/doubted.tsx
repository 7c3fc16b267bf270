import type { Contradiction, Slip } from '@jubb/core';
import { useEffect, useRef, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Care } from '../../kit/pieces.tsx';

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
    <Care title="Is that so?" role="alert">
      {typed} is far from the others: {SLIP_WORDS[doubt.slip]}
      {meant === undefined ? '' : `, ${meant} was meant`}?
      <div className="keys">
        {meant === undefined ? null : (
          <Button ref={first} variant="plain" onClick={onMeant}>
            {meant} was meant
          </Button>
        )}
        <Button ref={meant === undefined ? first : undefined} variant="plain" onClick={onAgain}>
          Measure again
        </Button>
        <Button variant="plain" onClick={onTyped}>
          It is {typed}
        </Button>
      </div>
    </Care>
  );
}
