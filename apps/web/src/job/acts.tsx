import { entryWords, proposedFor, type AnyKeptEntry, type Step } from '@jubb/contract/job';
import { useState, type ReactElement } from 'react';
import { Dialog } from '../kit/dialog.ts';
import { FreeLine } from '../strip/free-line.tsx';
import { LastOff } from '../strip/ledger.tsx';
import { AskLine } from '../kit/ask-line.tsx';
import { useKeys } from '../kit/keys.ts';
import { useHere } from './use-job.ts';

export type Asking =
  | { readonly what: 'note' | 'open-end' | 'next-time' | 'owed' | 'mark' | 'line' }
  | { readonly what: 'strike'; readonly entry: AnyKeptEntry };

/** What can be done anywhere on a job by one key: note, open end, strike the last entry. */
export function useJobActs(step: Step | undefined): {
  readonly dialog: ReactElement | null;
  readonly ask: (asking: Asking) => void;
  readonly strikeLast: () => void;
} {
  const { state, sheet, person, keep } = useHere();
  const [asking, setAsking] = useState<Asking>();
  const last = state.live.findLast((entry) => entry.personId === person.id && entry.kind !== 'stage' && entry.kind !== 'caution-read');
  const strikeLast = (): void => {
    if (last && !state.handedOver) setAsking({ what: 'strike', entry: last });
  };
  useKeys(
    state.handedOver
      ? {}
      : {
          n: () => setAsking({ what: 'note' }),
          o: () => setAsking({ what: 'open-end' }),
          y: () => setAsking({ what: 'next-time' }),
          u: () => setAsking({ what: 'owed' }),
          m: () => setAsking({ what: 'mark' }),
          l: () => setAsking({ what: 'line' }),
          s: strikeLast,
        },
  );
  const at = step ? { step: step.ref } : {};
  const close = (): void => setAsking(undefined);
  let dialog: ReactElement | null = null;
  if (asking?.what === 'note') {
    dialog = (
      <AskLine
        title="Note"
        act="Keep it"
        fields={[{ name: 'text', label: 'What should be remembered', required: true, longest: 2000 }]}
        onClose={close}
        onDone={({ text = '' }) => {
          keep({ kind: 'note', payload: { text: text.trim() }, ...at });
          close();
        }}
      />
    );
  }
  if (asking?.what === 'next-time') {
    dialog = (
      <AskLine
        title="Next time"
        act="Keep it"
        fields={[
          {
            name: 'text',
            label: 'What should be otherwise',
            required: true,
            hint: 'It stands beside the line of the sheet until somebody takes it in.',
            longest: 1000,
          },
          { name: 'figure', label: 'Figure that worked, if there is one', longest: 60 },
        ]}
        onClose={close}
        onDone={({ text = '', figure = '' }) => {
          const line = step ? proposedFor(sheet, step) : {};
          keep({ kind: 'next-time', payload: { text: text.trim(), ...line, ...(figure.trim() ? { figure: figure.trim() } : {}) }, ...at });
          close();
        }}
      />
    );
  }
  if (asking?.what === 'line') {
    dialog = (
      <Dialog show centered size="lg" animation={false} onHide={close} aria-label="A line of your own" restoreFocus>
        <Dialog.Body>
          <FreeLine focus onLeave={close} />
          <LastOff />
        </Dialog.Body>
      </Dialog>
    );
  }
  if (asking?.what === 'mark') {
    dialog = (
      <AskLine
        title="Mark"
        act="It is marked"
        fields={[
          { name: 'what', label: 'What to what', required: true, longest: 200, hint: 'Cap to carrier, drum to shaft, cover to case …' },
          { name: 'mark', label: 'How', required: true, longest: 200, hint: 'Dot to dot, paint line, punch, 3 o’clock, tooth 5 …' },
        ]}
        onClose={close}
        onDone={({ what = '', mark = '' }) => {
          keep({ kind: 'mark', payload: { what: what.trim(), mark: mark.trim() }, ...at });
          close();
        }}
      />
    );
  }
  if (asking?.what === 'owed') {
    dialog = (
      <AskLine
        title="Owed"
        act="Keep it"
        fields={[
          { name: 'what', label: 'What is put off', required: true, longest: 300, hint: 'It greets the next booking of this machine.' },
          { name: 'told', label: 'What the customer said to it', required: true, longest: 300 },
          { name: 'due', label: 'Due by, if there is a day', type: 'date' },
          { name: 'hours', label: 'Due at running hours, if there are', type: 'number' },
        ]}
        onClose={close}
        onDone={({ what = '', told = '', due = '', hours = '' }) => {
          const when = { ...(due ? { due } : {}), ...(hours ? { hours: Number(hours) } : {}) };
          keep({ kind: 'owed', payload: { what: what.trim(), told: told.trim(), ...when }, ...at });
          close();
        }}
      />
    );
  }
  if (asking?.what === 'open-end') {
    dialog = (
      <AskLine
        title="Open end"
        act="Keep it"
        fields={[
          {
            name: 'what',
            label: 'What is not as it will be',
            required: true,
            hint: 'Strap in, hose off, plug by hand, adjuster moved two turns …',
          },
          { name: 'place', label: 'Where', longest: 100 },
          { name: 'closes', label: 'What closes it', required: true },
        ]}
        onClose={close}
        onDone={({ what = '', place = '', closes = '' }) => {
          keep({
            kind: 'open-end',
            payload: { what: what.trim(), ...(place.trim() ? { place: place.trim() } : {}), closes: closes.trim() },
            ...at,
          });
          close();
        }}
      />
    );
  }
  if (asking?.what === 'strike') {
    dialog = (
      <AskLine
        title={`Strike: ${entryWords(asking.entry, sheet)}`}
        act="Strike it"
        fields={[
          {
            name: 'reason',
            label: 'Why',
            required: true,
            hint: 'It stays in the book, struck through, with this beside it.',
            longest: 300,
          },
        ]}
        onClose={close}
        onDone={({ reason = '' }) => {
          keep({ kind: 'strike', payload: { reason: reason.trim() }, strikes: asking.entry.id });
          close();
        }}
      />
    );
  }
  return { dialog, ask: setAsking, strikeLast };
}
