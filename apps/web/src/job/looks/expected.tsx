import { ladderAt, type LookDue } from '@jubb/book';
import type { Step } from '@jubb/sheet';
import { useState, type ReactElement } from 'react';
import { LineField } from '../../kit/line-field.tsx';
import { Care } from '../../kit/pieces.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { RecorderLayout } from '../recorder/layout.tsx';
import { useHere } from '../use-job.ts';
import { Rungs } from './rungs.tsx';

interface ExpectedRecorderProps {
  readonly step: Step;
  readonly look: Extract<LookDue, { readonly what: 'expected' }>;
}

/** Whether a step went as the sheet expects; where it did not, the ladder stands beside what it was like. */
export function ExpectedRecorder({ step, look }: ExpectedRecorderProps): ReactElement {
  const { job, sheet, state, keep } = useHere();
  const [isOther, setOther] = useState(false);
  const [instead, setInstead] = useDraft(`${job.id}.${step.ref}.instead`, '');
  const say = (so: boolean): void => {
    const words = instead.trim();
    if (!so && words === '') return;
    keep({ kind: 'as-expected', payload: { so, ...(so ? {} : { instead: words }) }, step: step.ref });
    setOther(false);
    setInstead(undefined);
  };
  const so = { label: look.notSo === undefined ? 'It is so' : 'It is so now', run: () => say(true) };
  if (look.notSo !== undefined)
    return (
      <RecorderLayout primary={so}>
        <Care title="Not as expected">
          {look.notSo}. Expected was: {look.expect}
        </Care>
        <Rungs ladder={ladderAt(sheet, state.live, step.ref, step.title)} />
      </RecorderLayout>
    );
  if (isOther)
    return (
      <RecorderLayout
        say={`Expected: ${look.expect}`}
        primary={{ label: 'Keep it', run: () => say(false), disabled: instead.trim() === '' }}
        others={[{ label: 'It is so after all', key: 'x', run: () => setOther(false) }]}
      >
        <LineField label="What it was like" longest={300} text={instead} onText={setInstead} onEnter={() => say(false)} />
      </RecorderLayout>
    );
  return (
    <RecorderLayout
      say={
        <>
          Expected: <b>{look.expect}</b>
        </>
      }
      primary={so}
      others={[{ label: 'Not so', key: 'x', run: () => setOther(true) }]}
    />
  );
}
