import type { AnyKeptEntry, Conflict } from '@jubb/book';
import { partName } from '@jubb/sheet';
import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { timeWords } from '../../kit/days.ts';
import { useHere } from '../../job/use-job.ts';
import './strip.scss';

/** What two people counted without knowing of each other, side by side: one of them is struck. */
export function Conflicts(): ReactElement | null {
  const { state } = useHere();
  if (state.handedOver) return null;
  return (
    <>
      {state.conflicts.map((conflict) => (
        <Twice key={conflict.key} conflict={conflict} />
      ))}
    </>
  );
}

function Twice({ conflict: { name, entries } }: { readonly conflict: Conflict }): ReactElement {
  const { sheet, keep, personName } = useHere();
  const part = entries[0]?.payload.part;
  const strike = (wrong: { readonly id: string }): void =>
    keep({ kind: 'strike', payload: { reason: 'counted twice, the other one stands' }, strikes: wrong.id });
  return (
    <section className="care" aria-label={`${name} counted twice`}>
      <b>Counted twice</b>
      {part === undefined ? name : partName(sheet, part)}. Each counted without knowing of the other. Which one stands?
      <div className="twice">
        {entries.map((entry) => {
          const others = entries.filter((other) => other !== entry);
          return (
            <Button key={entry.id} variant="plain" onClick={() => others.forEach(strike)}>
              <b className="fig fs-1">{entry.payload.count}</b> {personName(entry.personId).split(' ')[0]}{' '}
              {timeWords((entry as AnyKeptEntry).takenAt)}
              <span className="visually-hidden"> stands</span>
            </Button>
          );
        })}
      </div>
    </section>
  );
}
