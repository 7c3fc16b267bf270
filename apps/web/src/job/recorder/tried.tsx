import { type KeptEntry, type TriedAgain } from '@jubb/book';
import type { Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import { AskLine } from '../../kit/ask-line.tsx';
import { LineField } from '../../kit/line-field.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { useHere } from '../use-job.ts';
import { RecorderLayout } from './layout.tsx';

/** What the customer came for, tried before anything is touched: the same trial is asked for at the end. */
export function TryIt({ step, onClose }: { readonly step: Step; readonly onClose: () => void }): ReactElement {
  const { job, keep } = useHere();
  return (
    <AskLine
      about={`${job.id}.${step.ref}.tried`}
      title="Tried before it is touched; it is tried again the same way when it is proved"
      act="Keep it"
      fields={() => [
        { name: 'what', label: 'What: noise, rock, slip, drip, warmth', required: true, longest: 60 },
        { name: 'how', label: 'How it is now', required: true, longest: 300 },
        { name: 'conditions', label: 'Warm or cold, loaded, at what speed', longest: 200 },
      ]}
      onClose={onClose}
      onDone={({ what = '', how = '', conditions = '' }) => {
        keep({ kind: 'tried', payload: { what, how, ...(conditions === '' ? {} : { conditions }) }, step: step.ref });
        onClose();
      }}
    />
  );
}

const RESULTS: readonly (readonly [TriedAgain, string, 't' | 'x' | 'd'])[] = [
  ['less', 'Less', 't'],
  ['same', 'The same', 'x'],
  ['worse', 'Worse', 'd'],
];

/** Before the signature: the trial of the complaint again, under the same conditions. */
export function TryAgain({ step, before }: { readonly step: Step; readonly before: KeptEntry<'tried'> }): ReactElement {
  const { job, keep } = useHere();
  const { what, how, conditions } = before.payload;
  const [words, setWords] = useDraft(`${job.id}.${before.id}.again`, '');
  const said = (result: TriedAgain): void => {
    keep({
      kind: 'tried-again',
      payload: { before: before.id, result, ...(words.trim() === '' ? {} : { how: words.trim() }) },
      step: step.ref,
    });
    setWords(undefined);
  };
  return (
    <RecorderLayout
      say={
        <>
          It came for this: <b>{what}</b>, {how}
          {conditions === undefined ? '' : `; ${conditions}`}.
          <br />
          Try it again the same way. Is it gone?
        </>
      }
      primary={{ label: 'Gone', run: () => said('gone') }}
      others={RESULTS.map(([result, label, key]) => ({ label, key, run: () => said(result) }))}
    >
      <LineField label="How it is now" longest={300} text={words} onText={setWords} />
    </RecorderLayout>
  );
}
