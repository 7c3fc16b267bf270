import { presetFor, workingsForSetting, type SettingRun, type ShimLine, type Step } from '@jubb/contract/job';
import { workings, type WorkingRun } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import { useHere } from '../job/use-job.ts';
import { WorkingForm } from '../places/working-form.tsx';
import { useShims } from '../stores/queries.ts';

const NO_SHIMS: readonly ShimLine[] = [];

/** What to put in or turn from the last reading: the working of the method, with what is known filled in. */
export function SettingGuide({ run, step }: { readonly run: SettingRun; readonly step: Step }): ReactElement | null {
  const { job, sheet, keep } = useHere();
  const ids = workingsForSetting(run.setting, sheet.family);
  const { data: shims = NO_SHIMS } = useShims();
  // A reading that is out asks for a move; before the first one nothing is known.
  const isAsked = run.tries.length > 0 && run.tries.at(-1)?.verdict !== 'in' && !wasDone(run);
  const [opened, setOpened] = useState<string>();
  const open = opened ?? (isAsked ? ids[0] : undefined);
  const working = open === undefined || open === 'none' ? undefined : workings.describe(open);
  if (ids.length === 0) return null;
  const put = (answer: WorkingRun): void => {
    keep({ kind: 'worked', payload: { working: answer.working, input: answer.input, setting: run.setting.ref }, step: step.ref });
    setOpened('none');
  };
  return (
    <section className="mt-3" aria-label="Work it out">
      <div className="d-flex flex-wrap gap-2 mb-2" role="group" aria-label="What it is worked out by">
        {ids.map((id) => (
          <button
            key={id}
            type="button"
            className={`btn btn-plain ${id === open ? 'on' : ''}`}
            aria-pressed={id === open}
            onClick={() => setOpened(id === open ? 'none' : id)}
          >
            {workings.describe(id)?.title}
          </button>
        ))}
      </div>
      {working ? (
        <WorkingForm
          key={`${working.id}.${run.tries.length}.${run.worked.length}.${shims.length}`}
          isPart
          working={working}
          draftKey={`${job.id}.${run.setting.ref}.${working.id}.${run.tries.length}.${run.worked.length}`}
          preset={presetFor(working.id, run, shims)}
          under={(answer) => (
            <p className="mt-3">
              <button type="button" className="btn btn-primary" onClick={() => put(answer)}>
                Done so; now read it again
              </button>
            </p>
          )}
        />
      ) : null}
    </section>
  );
}

/** Whether something was done already since the last reading. */
function wasDone({ tries, worked }: SettingRun): boolean {
  return (worked.at(-1)?.seq ?? 0) > (tries.at(-1)?.entry.seq ?? 0);
}
