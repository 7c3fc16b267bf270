import { find, type Joint, type Step } from '@jubb/sheet';
import { formatQuantity, workings, type WorkingRun } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useHere } from '../use-job.ts';
import { WorkingForm } from '../../workings/working-form.tsx';

const WORKING = 'torque.no-spec';
/** Aluminium of a case is cast as a rule: the weaker one is taken. */
const FEMALE = { steel: 'steel', 'cast iron': 'cast-iron', aluminium: 'cast-aluminium' } as const;

/** The book has no torque for a joint: worked out from its screw and what it goes into, marked as calculated, and a proposal for the sheet. */
export function NoNumber({ step, joint: ref }: { readonly step: Step; readonly joint: string }): ReactElement | null {
  const { job, sheet, keep } = useHere();
  const [isOpen, setOpen] = useState(false);
  const joint = find(sheet.joints, ref);
  const working = workings.describe(WORKING);
  if (!joint || !working) return null;
  const goOn = ({ input, output }: WorkingRun): void => {
    const aim = formatQuantity(Number(output['aim']), 'torque', 'N·m');
    keep(
      { kind: 'worked', payload: { working: WORKING, input, joint: ref }, step: step.ref },
      {
        kind: 'value-found',
        payload: {
          list: 'joints',
          line: ref,
          figures: [{ field: 'torque.figure', figure: aim }],
          source: `${working.title} ${String(output['governs'])}, at most ${formatQuantity(Number(output['high']), 'torque', 'N·m')}`.slice(
            0,
            200,
          ),
          calculated: true,
        },
        step: step.ref,
      },
    );
  };
  return (
    <section className="mt-3" aria-label="Work it out">
      <Button variant="plain" className={isOpen ? 'on' : ''} aria-pressed={isOpen} onClick={() => setOpen(!isOpen)}>
        Work it out from the screw
      </Button>
      {isOpen ? (
        <WorkingForm
          isPart
          working={working}
          draftKey={`${job.id}.${ref}.${WORKING}`}
          preset={presetOf(joint)}
          under={(run) => (
            <p>
              <Button variant="primary" onClick={() => goOn(run)}>
                Go on by {formatQuantity(Number(run.output['aim']), 'torque', 'N·m')}, calculated
              </Button>
            </p>
          )}
        />
      ) : null}
    </section>
  );
}

/** What the sheet says of the screw and of what it is cut into, in the words of the working. */
function presetOf({ thread, propertyClass, into, surface }: Joint): Readonly<Record<string, unknown>> {
  const known = workings.describe(WORKING)?.inputs;
  const choices = (name: string): readonly string[] => {
    const field = known?.find((one) => one.name === name);
    return field?.kind === 'choice' ? field.choices.map(({ id }) => id) : [];
  };
  return {
    thread,
    ...(surface ? { surface } : {}),
    ...(propertyClass && choices('propertyClass').includes(propertyClass) ? { propertyClass } : {}),
    ...(into && into !== 'plastic' ? { female: FEMALE[into] } : {}),
    ...(into === 'plastic' ? { joint: 'plastic' } : {}),
  };
}
