import type { ReactElement } from 'react';
import { useFormContext, useWatch } from 'react-hook-form';
import Button from 'react-bootstrap/Button';
import { closedOn, dayWords } from './days.ts';
import { Field } from './field.tsx';

interface PromiseFieldProps {
  /** What the form is called, where there may be two of them on a page. */
  readonly of?: string;
}

/** The day of a promise; where nobody is in the shop on it that is said, with the next day on which somebody is. */
export function PromiseField({ of }: PromiseFieldProps): ReactElement {
  const { control, setValue } = useFormContext<{ promise: string }>();
  const closed = closedOn(useWatch({ control, name: 'promise' }));
  const next = closed?.next;
  return (
    <>
      <Field {...(of === undefined ? {} : { of })} name="promise" label="Promise" type="date" />
      {closed ? (
        <p className="brass mb-2" role="status">
          The shop is closed then: {closed.why}.{' '}
          {next === undefined ? null : (
            <Button variant="quiet" onClick={() => setValue('promise', next, { shouldDirty: true })}>
              Promise {dayWords(next)}
            </Button>
          )}
        </p>
      ) : null}
    </>
  );
}
