import { entryWords, type AnyKeptEntry } from '@jubb/book';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Wrong } from '../../kit/pieces.tsx';
import { useHeld } from '../../link/live.ts';
import { outbox } from '../../link/outbox.ts';
import type { Held } from '../../link/store.ts';
import { useHere } from '../use-job.ts';
import { PinField } from './pin-field.tsx';
import { proved } from './prove.ts';

/** What somebody looked at here while there was no link to ask for their PIN: it waits for that, and what came after waits for it. */
export function Unproved(): ReactElement | null {
  const { job } = useHere();
  const held = useHeld().filter((one) => one.jobId === job.id && one.kind === 'hold-met' && !one.refused && !outbox.isSendable(one));
  if (held.length === 0) return null;
  return (
    <section>
      <h2>Waits for a PIN</h2>
      {held.map((one) => (
        <Unsigned key={one.id} held={one} />
      ))}
    </section>
  );
}

function Unsigned({ held }: { readonly held: Held }): ReactElement {
  const { sheet, personName } = useHere();
  const [pin, setPin] = useState('');
  const [error, setError] = useState<unknown>();
  const name = personName(held.personId);
  const go = (): void => {
    setError(undefined);
    proved(held.personId, pin).then(
      (isProved) => {
        if (!isProved) setError(new Error('There is still no link to the server.'));
      },
      (refusal: unknown) => setError(refusal),
    );
    setPin('');
  };
  return (
    <div className="mb-2">
      <p className="mb-1">{entryWords({ ...held, step: held.step ?? null } as unknown as AnyKeptEntry, sheet)}</p>
      <PinField of={name} pin={pin} onPin={setPin} onEnter={go} />
      <Wrong error={error} />
      <Button variant="plain" className="mt-1" disabled={pin.length < 4} onClick={go}>
        It was {name}
      </Button>
    </div>
  );
}
