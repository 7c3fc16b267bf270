import { ENDPOINTS, type TabletPeople } from '@jubb/wire';
import { useEffect, useLayoutEffect, useRef, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Wrong } from '../kit/pieces.tsx';
import { ask } from '../link/client.ts';
import { switchSession } from '../link/queries.ts';
import './pin-pad.scss';

/** Somebody whom this tablet knows. */
export type Person = TabletPeople['people'][number];

const PAD = ['1', '2', '3', '4', '5', '6', '7', '8', '9', 'wipe', '0'] as const;

/** Digits and the key that wipes them, wherever in the dialog the focus is. */
export function useDigits(onDigit: (key: string) => void): void {
  const latest = useRef(onDigit);
  useLayoutEffect(() => {
    latest.current = onDigit;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      // What is typed into a field is the field's.
      if (event.target instanceof HTMLInputElement) return;
      if (/^(?:\d|Backspace)$/u.test(event.key)) latest.current(event.key);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}

/** The digits of somebody's PIN; they are in with the last one. */
export function PinPad({ person, onDone }: { readonly person: Person; readonly onDone?: () => void }): ReactElement {
  const length = person.pinDigits;
  const [pin, setPin] = useState('');
  const [error, setError] = useState<unknown>();
  const busy = useRef(false);
  const swap = async (whole: string): Promise<void> => {
    if (busy.current) return;
    busy.current = true;
    try {
      const session = await ask(ENDPOINTS.session.swap, { body: { personId: person.id, pin: whole } });
      onDone?.();
      switchSession(session);
    } catch (refusal) {
      setError(refusal);
      setPin('');
    } finally {
      busy.current = false;
    }
  };
  const press = (digit: string): void => {
    setError(undefined);
    const next = digit === 'wipe' ? '' : `${pin}${digit}`.slice(0, length);
    setPin(next);
    if (next.length === length) void swap(next);
  };
  useDigits((key) => press(key === 'Backspace' ? 'wipe' : key));
  return (
    <>
      <div className="pin-dots" role="status" aria-label={`${pin.length} of ${length} digits`}>
        {Array.from({ length }, (_, at) => (
          <span key={at} className={at < pin.length ? 'on' : ''} />
        ))}
      </div>
      <Wrong error={error} />
      <div className="pin-pad">
        {PAD.map((digit) => (
          <Button key={digit} variant="plain" onClick={() => press(digit)}>
            {digit === 'wipe' ? 'Wipe' : digit}
          </Button>
        ))}
      </div>
    </>
  );
}
