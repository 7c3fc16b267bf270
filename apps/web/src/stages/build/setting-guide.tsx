import {
  lyingFor,
  presetFor,
  shimsWanted,
  type ShimWanted,
  workingsForSetting,
  type PayloadOf,
  type SettingRun,
  type ShimLine,
} from '@jubb/book';
import type { Step } from '@jubb/sheet';
import { formatQuantity, workings, type WorkingRun } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useHere } from '../../job/use-job.ts';
import { WorkingForm } from '../../workings/working-form.tsx';
import { useShims } from '../../stores/queries.ts';
import { Tick } from '../../kit/tick.tsx';

const NO_SHIMS: readonly ShimLine[] = [];

/** What to put in or turn from the last reading: the working of the method, with what is known filled in. */
export function SettingGuide({ run, step }: { readonly run: SettingRun; readonly step: Step }): ReactElement | null {
  const { job, sheet, state, keep } = useHere();
  const ids = workingsForSetting(run.setting, sheet.family);
  const { data: shims = NO_SHIMS } = useShims();
  // A reading that is out asks for a move; before the first one nothing is known.
  const isAsked = run.tries.length > 0 && run.tries.at(-1)?.verdict !== 'in' && !wasDone(run);
  const [opened, setOpened] = useState<string>();
  const open = opened ?? (isAsked ? ids[0] : undefined);
  const working = open === undefined || open === 'none' ? undefined : workings.describe(open);
  if (ids.length === 0) return null;
  const put = (answer: WorkingRun, taken: Taken): void => {
    const { working: id, input } = answer;
    keep({ kind: 'worked', payload: { working: id, input, setting: run.setting.ref, ...(taken ? { taken } : {}) }, step: step.ref });
    setOpened('none');
  };
  return (
    <section className="mt-3" aria-label="Work it out">
      <div className="d-flex flex-wrap gap-2 mb-2" role="group" aria-label="What it is worked out by">
        {ids.map((id) => (
          <Button
            key={id}
            variant="plain"
            className={id === open ? 'on' : ''}
            aria-pressed={id === open}
            onClick={() => setOpened(id === open ? 'none' : id)}
          >
            {workings.describe(id)?.title}
          </Button>
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
            <PutIn
              wanted={shimsWanted(answer, shims, lyingFor(answer.working, run.setting.ref, state.live))}
              onDone={(taken) => put(answer, taken)}
            />
          )}
        />
      ) : null}
    </section>
  );
}

type Taken = PayloadOf<'worked'>['taken'];

interface PutInProps {
  readonly wanted: readonly ShimWanted[];
  readonly onDone: (taken: Taken) => void;
}

/** What goes in by an answer, and which of it comes off the shelf. */
function PutIn({ wanted, onDone }: PutInProps): ReactElement {
  const [left, setLeft] = useState<readonly number[]>([]);
  const taken = wanted.flatMap(({ thickness, fresh, line }) =>
    line && fresh > 0 && !left.includes(thickness) ? [{ item: line.id, count: fresh }] : [],
  );
  return (
    <div className="mt-3">
      {wanted.map(({ thickness, count, fresh, line }) =>
        line && fresh > 0 ? (
          <Tick
            key={thickness}
            className="mb-1"
            checked={!left.includes(thickness)}
            onChange={({ target }) => setLeft(target.checked ? left.filter((one) => one !== thickness) : [...left, thickness])}
          >
            <span>
              {fresh} × <span className="fig">{formatQuantity(thickness, 'length')}</span> out of stores{' '}
              <span className="soft">
                {line.number}
                {line.location ? `, shelf ${line.location}` : ''}
              </span>
            </span>
          </Tick>
        ) : (
          <p key={thickness} className="soft mb-1">
            {count} × <span className="fig">{formatQuantity(thickness, 'length')}</span>:{' '}
            {fresh === 0 ? 'lies in there already' : 'on no shelf, not taken out of stores'}
          </p>
        ),
      )}
      <Button variant="primary" className="mt-2" onClick={() => onDone(wanted.length > 0 ? taken : undefined)}>
        Done so; now read it again
      </Button>
    </div>
  );
}

/** Whether something was done already since the last reading. */
function wasDone({ tries, worked }: SettingRun): boolean {
  return (worked.at(-1)?.seq ?? 0) > (tries.at(-1)?.entry.seq ?? 0);
}
