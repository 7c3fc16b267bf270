import { stopsHandOver, stopsSigning } from '@jubb/book';
import type { Step } from '@jubb/sheet';
import { useId, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import { useDraft } from '../../kit/prefs.ts';
import { useHere } from '../../job/use-job.ts';
import { RecorderLayout } from '../../job/recorder/layout.tsx';
import { Tick } from '../../kit/tick.tsx';
import { Care } from '../../kit/pieces.tsx';

/** What stands in the way, by name. */
function Stops({ stops, of }: { readonly stops: readonly string[]; readonly of: string }): ReactElement | null {
  if (stops.length === 0) return null;
  return (
    <Care title="Still open">
      {of} waits for:
      <ul className="mb-0">
        {stops.map((stop) => (
          <li key={stop}>{stop}</li>
        ))}
      </ul>
    </Care>
  );
}

export function SignRecorder({ step }: { readonly step: Step }): ReactElement {
  const { state, person, keep } = useHere();
  const stops = stopsSigning(state);
  const isForeman = person.role === 'foreman';
  return (
    <RecorderLayout
      primary={{
        label: `Sign as ${person.name}`,
        run: () => keep({ kind: 'sign', payload: { name: person.name }, step: step.ref }),
        disabled: !isForeman || stops.length > 0,
      }}
    >
      <Stops stops={stops} of="The signature" />
      {isForeman ? null : <p>The foreman signs this. Ask for the log-in to be changed.</p>}
    </RecorderLayout>
  );
}

export function HandOverRecorder({ step }: { readonly step: Step }): ReactElement {
  const { job, sheet, state, person, keep } = useHere();
  const [draft, setDraft] = useDraft(`${job.id}.${step.ref}`, { receivedBy: '', told: false });
  const id = useId();
  const stops = stopsHandOver(state);
  const isApprentice = person.role === 'apprentice';
  const lacks = [
    ...(isApprentice ? ['somebody who is no apprentice, to hand it over'] : []),
    ...(draft.told ? [] : ['that the driver was told']),
    ...(draft.receivedBy.trim().length >= 2 ? [] : ['who received it']),
  ];
  const over = (): void => {
    if (stops.length > 0 || lacks.length > 0) return;
    keep({ kind: 'handed-over', payload: { receivedBy: draft.receivedBy.trim(), cautionsTold: true }, step: step.ref });
    setDraft(undefined);
  };
  return (
    <RecorderLayout primary={{ label: 'Hand over', run: over, disabled: stops.length > 0, lacks: stops.length > 0 ? [] : lacks }}>
      <Stops stops={stops} of="The hand-over" />
      <h3>Tell the driver</h3>
      <ul>
        {sheet.customerNotes.map((note) => (
          <li key={note.ref}>{note.text}</li>
        ))}
      </ul>
      <Tick className="mb-3" checked={draft.told} onChange={(event) => setDraft({ ...draft, told: event.target.checked })}>
        Told, and in the report
      </Tick>
      <FormLabel htmlFor={`${id}-by`}>Received by</FormLabel>
      <FormControl
        id={`${id}-by`}
        maxLength={100}
        value={draft.receivedBy}
        onChange={(event) => setDraft({ ...draft, receivedBy: event.target.value })}
        onKeyDown={(event) => {
          if (event.key === 'Enter') over();
        }}
      />
    </RecorderLayout>
  );
}
