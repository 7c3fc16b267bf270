import { WEEKDAYS, type ShopHours } from '@jubb/book';
import { ENDPOINTS, HoursBody, type ShopView } from '@jubb/wire';
import type { ReactElement } from 'react';
import { useFieldArray } from 'react-hook-form';
import Button from 'react-bootstrap/Button';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { Field } from '../kit/field.tsx';
import { offerUndo } from '../kit/undo.ts';
import { ask, meanwhile } from '../link/client.ts';
import { refresh } from '../link/queries.ts';
import { useFresh } from './use-fresh.ts';

type Typed = Pick<HoursBody, 'version' | 'week' | 'closed'>;

const CLOSED = { from: '', to: '' };

function typedOf(hours: ShopHours | null, version: number): Typed {
  return {
    version,
    week: WEEKDAYS.map((_, at) => ({ ...(hours?.week[at] ?? CLOSED) })),
    closed: (hours?.closed ?? []).map((one) => ({ ...one })),
  };
}

/** When somebody is in the shop: a promise on another day is told so, and a promised day ends when the shop closes. */
export function HoursForm({ shop, mayChange }: { readonly shop: ShopView; readonly mayChange: boolean }): ReactElement {
  const form = useAskForm<Typed, HoursBody>({
    type: HoursBody,
    draft: 'shop.hours',
    initial: typedOf(shop.hours, shop.version),
    onSend: async (body) => {
      const kept = await ask(ENDPOINTS.shop.hours, { body: { ...body, version: current?.version ?? body.version } });
      offerUndo('The shop’s hours are changed', async () => {
        await ask(ENDPOINTS.shop.hours, { body: typedOf((current ?? shop).hours, kept.version) });
        await refresh({ queryKey: ['session'] });
      });
      form.begin(typedOf(kept.hours, kept.version));
      await refresh({ queryKey: ['session'] });
    },
  });
  const current = meanwhile<ShopView>(form.error);
  useFresh(form, 'shop.hours', shop.version, () => typedOf(shop.hours, shop.version));
  const { fields, append, remove } = useFieldArray({ control: form.form.control, name: 'closed' });
  return (
    <section className="mt-4" aria-label="Open">
      <h2>Open</h2>
      <p className="soft">
        {shop.hours ? '' : 'Not said yet: a promised day ends at 16:00, whatever day it is. '}A day with nothing in it is one on which the
        shop is closed.
      </p>
      <Asking
        of={form}
        keys={
          mayChange ? (
            <Button type="submit" variant="primary" disabled={form.busy}>
              Keep the hours
            </Button>
          ) : null
        }
      >
        <div className="two form-first">
          <div className="hours">
            {WEEKDAYS.map((name, at) => (
              <div key={name} className="d-flex flex-wrap gap-2 align-items-end mb-2">
                <Field
                  of="hours"
                  name={`week.${at}.from`}
                  label={`${name} from`}
                  wrap="hours-clock"
                  inputMode="numeric"
                  maxLength={5}
                  placeholder="closed"
                  className="fig"
                  disabled={!mayChange}
                />
                <Field
                  of="hours"
                  name={`week.${at}.to`}
                  label={`${name} until`}
                  wrap="hours-clock"
                  inputMode="numeric"
                  maxLength={5}
                  placeholder="closed"
                  className="fig"
                  disabled={!mayChange}
                />
              </div>
            ))}
            {mayChange ? (
              <Button
                variant="quiet"
                onClick={() => {
                  const [monday] = form.form.getValues('week');
                  form.form.setValue(
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
                <Field of="hours" name={`closed.${place}.day`} label="Day" wrap="" type="date" disabled={!mayChange} />
                <Field of="hours" name={`closed.${place}.why`} label="Why" wrap="flex-grow-1" maxLength={60} disabled={!mayChange} />
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
        {current ? <p>Somebody else changed the shop meanwhile. What you typed is still here; keep it to put it in its place.</p> : null}
      </Asking>
    </section>
  );
}
