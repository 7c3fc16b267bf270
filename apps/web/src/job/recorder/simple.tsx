import { useId, useState, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import { useDraft } from '../../kit/prefs.ts';
import { useHere } from '../use-job.ts';
import { RecorderLayout, type RecorderProps } from './layout.tsx';
import { TryIt } from './tried.tsx';

export function TickRecorder({ step }: RecorderProps): ReactElement {
  const { keep } = useHere();
  return <RecorderLayout primary={{ label: 'Done', run: () => keep({ kind: 'tick', payload: {}, step: step.ref }) }} />;
}

export function ArrivalRecorder({ step }: RecorderProps): ReactElement {
  const { job, keep } = useHere();
  const [draft, setDraft] = useDraft(`${job.id}.${step.ref}`, { text: '', place: '' });
  const [isTrying, setTrying] = useState(false);
  const id = useId();
  const note = (): void => {
    if (draft.text.trim() === '') return;
    keep({
      kind: 'finding',
      payload: { text: draft.text.trim(), ...(draft.place.trim() ? { place: draft.place.trim() } : {}) },
      step: step.ref,
    });
    setDraft(undefined);
  };
  const onEnter = (event: React.KeyboardEvent): void => {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    note();
  };
  return (
    <RecorderLayout
      primary={{ label: 'Note it', run: note, disabled: draft.text.trim() === '' }}
      others={[
        { label: 'Try what it was brought for', key: 't', run: () => setTrying(true) },
        {
          label: 'Nothing to note',
          key: 'x',
          run: () => keep({ kind: 'finding', payload: { text: 'nothing to note', nothing: true }, step: step.ref }),
        },
      ]}
    >
      {isTrying ? <TryIt step={step} onClose={() => setTrying(false)} /> : null}
      <FormLabel htmlFor={`${id}-text`}>What is seen</FormLabel>
      <FormControl
        id={`${id}-text`}
        autoFocus
        maxLength={2000}
        value={draft.text}
        onKeyDown={onEnter}
        onChange={(event) => setDraft({ ...draft, text: event.target.value })}
      />
      <FormLabel className="mt-2" htmlFor={`${id}-place`}>
        Where
      </FormLabel>
      <FormControl
        id={`${id}-place`}
        maxLength={200}
        value={draft.place}
        onKeyDown={onEnter}
        onChange={(event) => setDraft({ ...draft, place: event.target.value })}
      />
    </RecorderLayout>
  );
}
