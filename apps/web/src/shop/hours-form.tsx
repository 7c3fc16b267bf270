import type { ShopHours } from '@jubb/book';
import { ENDPOINTS, HoursBody, type ShopView } from '@jubb/wire';
import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { offerUndo } from '../kit/undo.ts';
import { ask, meanwhile } from '../link/client.ts';
import { refresh } from '../link/queries.ts';
import { HoursFields, weekOf } from './hours-fields.tsx';
import { useFresh } from './use-fresh.ts';

type Typed = Pick<HoursBody, 'version' | 'week' | 'closed'>;

function typedOf(hours: ShopHours | null, version: number): Typed {
  return {
    version,
    week: weekOf(hours),
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
        <HoursFields of="hours" mayChange={mayChange} />
        {current ? <p>Somebody else changed the shop meanwhile. What you typed is still here; keep it to put it in its place.</p> : null}
      </Asking>
    </section>
  );
}
