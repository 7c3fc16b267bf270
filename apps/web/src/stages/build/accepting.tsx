import { mayAccept, type SettingRun } from '@jubb/book';
import type { Step } from '@jubb/sheet';
import { useState, type ReactElement } from 'react';
import { AskLine } from '../../kit/ask-line.tsx';
import type { Act } from '../../job/recorder/layout.tsx';
import { useHere } from '../../job/use-job.ts';

interface Accepting {
  readonly words: ReactElement | null;
  readonly acts: readonly Act[];
}

/** The last reading is unsure: what settles it, and the foreman's word where no tool of the shop can. */
export function useAccepting({ run, step }: { readonly run: SettingRun; readonly step: Step }): Accepting {
  const { job, person, keep } = useHere();
  const [asking, setAsking] = useState(false);
  const { last } = run;
  if (!last || !mayAccept(last)) return { words: null, acts: [] };
  const isForeman = person.role === 'foreman';
  const words = (
    <>
      <p className="mb-1">
        <b className="v-unsure">Unsure:</b> read again, more often or with a finer tool
        {isForeman ? '.' : '; where there is none, the foreman may accept it with the reason.'}
      </p>
      {asking ? (
        <AskLine
          about={`${job.id}.${step.ref}`}
          title={`Accept ${run.setting.name} although it is unsure`}
          act="Accept it"
          fields={() => [{ name: 'why', label: 'Why it may stay so', required: true, hint: 'It is printed in the report.', longest: 300 }]}
          onClose={() => setAsking(false)}
          onDone={({ why = '' }) => {
            keep({ kind: 'accepted', payload: { setting: run.setting.ref, why }, step: step.ref });
            setAsking(false);
          }}
        />
      ) : null}
    </>
  );
  return { words, acts: isForeman ? [{ label: 'Accept it', key: 'c', run: () => setAsking(true) }] : [] };
}
