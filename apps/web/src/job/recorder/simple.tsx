import { useId, useState, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import { Tick } from '../../kit/tick.tsx';
import FormControl from 'react-bootstrap/FormControl';
import { sealsAttacked } from '@jubb/sheet';
import { Care } from '../../kit/pieces.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { useHere } from '../use-job.ts';
import { RecorderLayout, type RecorderProps } from './layout.tsx';
import { TryIt } from './tried.tsx';

export function TickRecorder({ step }: RecorderProps): ReactElement {
  const { keep } = useHere();
  if (step.coat) return <CoatRecorder step={step} coat={step.coat} />;
  return <RecorderLayout primary={{ label: 'Done', run: () => keep({ kind: 'tick', payload: {}, step: step.ref }) }} />;
}

interface CoatRecorderProps extends RecorderProps {
  readonly coat: NonNullable<RecorderProps['step']['coat']>;
}

/** A coat: what must stay bare is masked first, each of it; or it is put off, and owed. */
function CoatRecorder({ step, coat }: CoatRecorderProps): ReactElement {
  const { job, sheet, keep } = useHere();
  const [draft, setDraft] = useDraft<{ masked: readonly string[]; later?: string }>(`${job.id}.${step.ref}`, { masked: [] });
  const id = useId();
  const attacked = sealsAttacked(sheet, step);
  const isMasked = coat.masked.every((one) => draft.masked.includes(one));
  const { later } = draft;
  const told = later?.trim() ?? '';
  const done = (): void => {
    keep({ kind: 'tick', payload: { masked: coat.masked.length }, step: step.ref });
    setDraft(undefined);
  };
  const putOff = (): void => {
    if (told === '') return;
    keep(
      { kind: 'tick', payload: { later: told }, step: step.ref },
      { kind: 'owed', payload: { what: `${step.title}: ${coat.what}`, told }, step: step.ref },
    );
    setDraft(undefined);
  };
  return (
    <RecorderLayout
      primary={
        later === undefined
          ? { label: step.wait ? 'It is on, and dries' : 'It is on', run: done, lacks: isMasked ? [] : ['what stays bare, masked'] }
          : { label: 'Put it off', run: putOff, disabled: told === '' }
      }
      others={[
        later === undefined
          ? { label: 'Later', key: 'x', run: () => setDraft({ ...draft, later: '' }) }
          : { label: 'Not later', key: 'x', run: () => setDraft({ masked: draft.masked }) },
      ]}
    >
      {later === undefined ? (
        <>
          <p className="mb-2">
            <b>{coat.what}</b>, thinned with {coat.thinned}.
          </p>
          {attacked.length > 0 ? (
            <Care>
              {coat.thinned.charAt(0).toUpperCase()}
              {coat.thinned.slice(1)} swells or cracks {attacked.map(({ name, rubber }) => `${name} (${rubber})`).join(', ')}: none of it
              there.
            </Care>
          ) : null}
          <fieldset>
            <legend className="fs-6">Masked</legend>
            {coat.masked.map((one) => (
              <Tick
                key={one}
                checked={draft.masked.includes(one)}
                onChange={({ target }) =>
                  setDraft({ ...draft, masked: target.checked ? [...draft.masked, one] : draft.masked.filter((other) => other !== one) })
                }
              >
                {one}
              </Tick>
            ))}
          </fieldset>
        </>
      ) : (
        <>
          <FormLabel htmlFor={`${id}-told`}>What the customer said to it; it is owed from then on</FormLabel>
          <FormControl
            id={`${id}-told`}
            autoFocus
            maxLength={300}
            value={later}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return;
              event.preventDefault();
              putOff();
            }}
            onChange={(event) => setDraft({ ...draft, later: event.target.value })}
          />
        </>
      )}
    </RecorderLayout>
  );
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
