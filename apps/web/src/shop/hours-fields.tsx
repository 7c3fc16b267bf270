import { WEEKDAYS, type ShopHours } from '@jubb/book';
import type { ClosedDayBody, WeekdayBody } from '@jubb/wire';
import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useFieldArray, useFormContext } from 'react-hook-form';
import { Field } from '../kit/field.tsx';

const ENDS = [
  ['from', 'from'],
  ['to', 'until'],
] as const;
const CLOSED: WeekdayBody = { from: '', to: '' };

/** The seven days as fields hold them; all of them closed where nothing is said. */
export function weekOf(hours: ShopHours | null): WeekdayBody[] {
  return WEEKDAYS.map((_, at) => ({ ...(hours?.week[at] ?? CLOSED) }));
}

/** Days of the week and days on which it is closed, within a form that has both. */
export function HoursFields({ of, mayChange }: { readonly of: string; readonly mayChange: boolean }): ReactElement {
  const { control, getValues, setValue } = useFormContext<{ week: WeekdayBody[]; closed: ClosedDayBody[] }>();
  const { fields, append, remove } = useFieldArray({ control, name: 'closed' });
  return (
    <div className="two form-first">
      <div className="hours">
        {WEEKDAYS.map((name, at) => (
          <div key={name} className="d-flex flex-wrap gap-2 align-items-end mb-2">
            {ENDS.map(([end, words]) => (
              <Field
                key={end}
                of={of}
                name={`week.${at}.${end}`}
                label={`${name} ${words}`}
                wrap="hours-clock"
                inputMode="numeric"
                maxLength={5}
                placeholder="closed"
                className="fig"
                disabled={!mayChange}
              />
            ))}
          </div>
        ))}
        {mayChange ? (
          <Button
            variant="quiet"
            onClick={() => {
              const [monday] = getValues('week');
              setValue(
                'week',
                WEEKDAYS.map((_, at) => (at < 5 ? { ...(monday ?? CLOSED) } : { ...CLOSED })),
              );
            }}
          >
            Monday’s hours to Friday
          </Button>
        ) : null}
      </div>
      <div>
        <h3 className="fs-5">Closed, whatever day it is</h3>
        {fields.length === 0 ? <p className="soft">No holiday is named.</p> : null}
        {fields.map(({ id }, place) => (
          <div key={id} className="d-flex flex-wrap gap-2 mb-2 align-items-end">
            <Field of={of} name={`closed.${place}.day`} label="Day" wrap="" type="date" disabled={!mayChange} />
            <Field of={of} name={`closed.${place}.why`} label="Why" wrap="flex-grow-1" maxLength={60} disabled={!mayChange} />
            {mayChange ? (
              <Button variant="quiet" onClick={() => remove(place)}>
                Out<span className="visually-hidden"> day {place + 1}</span>
              </Button>
            ) : null}
          </div>
        ))}
        {mayChange ? (
          <Button variant="plain" onClick={() => append({ day: '', why: '' })}>
            One more day
          </Button>
        ) : null}
      </div>
    </div>
  );
}
