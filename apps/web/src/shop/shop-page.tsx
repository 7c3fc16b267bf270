import { ENDPOINTS, ShopBody, type ShopRule, type ShopView } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useFieldArray } from 'react-hook-form';
import { ask, meanwhile } from '../link/client.ts';
import { refresh, useSession } from '../link/queries.ts';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { Field } from '../kit/field.tsx';
import { amountText, minorOf, percentText } from '../kit/money.ts';
import { Loading, Title } from '../kit/pieces.tsx';
import { offerUndo } from '../kit/undo.ts';
import { HoursForm } from './hours-form.tsx';
import { Logo } from './logo.tsx';
import { useFresh } from './use-fresh.ts';
import { ShopPlaces } from './shop-places.tsx';

/** What the shop asks for its work, and what it renews by its own rule. */
export function ShopPage(): ReactElement {
  const { data: session } = useSession();
  if (!session) return <Loading what="the shop" />;
  const mayChange = session.person.role === 'foreman';
  return (
    <>
      <Title sub={mayChange ? 'Holds for every quote and every proposal from now on.' : 'The foreman changes this.'}>
        {session.shop.name}
      </Title>
      <ShopPlaces />
      <ShopForm shop={session.shop} mayChange={mayChange} />
      <HoursForm shop={session.shop} mayChange={mayChange} />
      <Logo shop={session.shop} mayChange={mayChange} />
    </>
  );
}

interface Typed {
  name: string;
  zone: string;
  hourly: string;
  tax: string;
  margin: string;
  rules: ShopRule[];
  pinDigits: string;
  /** Of the shop, when this was begun. */
  version: number;
}

function shareIn(text: string): number {
  const typed = text.trim().replace(',', '.').replace(/\s*%$/u, '');
  return typed === '' ? Number.NaN : Number(typed) / 100;
}

function typedOf(shop: ShopView): Typed {
  return {
    name: shop.name,
    zone: shop.zone,
    hourly: amountText(shop.hourlyMinor),
    tax: percentText(shop.taxShare),
    margin: percentText(shop.marginShare),
    rules: [...shop.rules],
    pinDigits: String(shop.pinDigits),
    version: shop.version,
  };
}

const toBody = ({ name, zone, hourly, tax, margin, rules, pinDigits, version }: Typed): ShopBody => ({
  version,
  name,
  zone,
  hourlyMinor: minorOf(hourly) ?? Number.NaN,
  taxShare: shareIn(tax),
  marginShare: shareIn(margin),
  rules: rules.map(({ words, why }) => ({ words, why })),
  pinDigits: Number(pinDigits) as 4 | 6,
});

function ShopForm({ shop, mayChange }: { readonly shop: ShopView; readonly mayChange: boolean }): ReactElement {
  const [kept, setKept] = useState(false);
  const form = useAskForm<Typed, ShopBody>({
    type: ShopBody,
    draft: 'shop',
    initial: typedOf(shop),
    toBody,
    names: { hourlyMinor: 'hourly', taxShare: 'tax', marginShare: 'margin' },
    onSend: async (body, typed) => {
      const before = current ?? shop;
      const { version } = await ask(ENDPOINTS.shop.change, { body: { ...body, version: current?.version ?? body.version } });
      offerUndo('The shop is changed', async () => {
        await ask(ENDPOINTS.shop.change, { body: { ...toBody(typedOf(before)), version } });
        await refresh({ queryKey: ['session'] });
        form.begin({ ...typedOf(before), version: version + 1 });
      });
      await refresh({ queryKey: ['session'] });
      form.begin({ ...typed, version });
      setKept(true);
    },
  });
  const current = meanwhile<ShopView>(form.error);
  useFresh(form, 'shop', shop.version, () => typedOf(shop));
  const { fields, append, remove } = useFieldArray({ control: form.form.control, name: 'rules' });
  const figure = { className: 'fig fs-4', inputMode: 'decimal', maxLength: 12, disabled: !mayChange, of: 'shop' } as const;
  return (
    <Asking
      of={form}
      keys={
        mayChange ? (
          <p className="mt-3">
            <Button type="submit" variant="primary" disabled={form.busy}>
              Keep it
            </Button>{' '}
            <span className="v-in" role="status">
              {kept && !form.form.formState.isDirty ? 'Kept.' : ''}
            </span>
          </p>
        ) : null
      }
    >
      <div className="two form-first">
        <div className="work">
          <Field of="shop" name="name" label="Name of the shop" maxLength={200} disabled={!mayChange} />
          <Field of="shop" name="zone" label="Time zone" maxLength={60} disabled={!mayChange} hint="Days, promises and checks go by it." />
          <Field {...figure} name="hourly" label="An hour of labour" unit={shop.currency} />
          <Field {...figure} name="tax" label="Tax" unit="%" />
          <Field {...figure} name="margin" label="Parts are sold at what they cost and" unit="% more" />
          <Field
            of="shop"
            name="pinDigits"
            label="A PIN at the bench has at least"
            disabled={!mayChange}
            options={[
              ['4', 'four digits'],
              ['6', 'six digits'],
            ]}
          />
        </div>
        <div>
          <h2>Renewed by the shop’s own rule</h2>
          <p className="soft">
            A part with these words in its name is proposed for renewal, whatever it looks like. Who decides otherwise says why.
          </p>
          {fields.length === 0 ? <p className="soft">No rule: the sheet, the readings and the looks decide.</p> : null}
          {fields.map(({ id }, place) => (
            <div key={id} className="d-flex flex-wrap gap-2 mb-2 align-items-end">
              <Field name={`rules.${place}.words`} label="Parts called" wrap="" maxLength={60} disabled={!mayChange} />
              <Field name={`rules.${place}.why`} label="Because" wrap="flex-grow-1" maxLength={200} disabled={!mayChange} />
              {mayChange ? (
                <Button variant="quiet" onClick={() => remove(place)}>
                  Out<span className="visually-hidden"> rule {place + 1}</span>
                </Button>
              ) : null}
            </div>
          ))}
          {mayChange ? (
            <Button variant="plain" onClick={() => append({ words: '', why: '' })}>
              One more rule
            </Button>
          ) : null}
        </div>
      </div>
      {current ? (
        <p>
          It now says: {current.name}, {current.zone}; an hour {amountText(current.hourlyMinor)}, tax {percentText(current.taxShare)} %,
          parts {percentText(current.marginShare)} % more;{' '}
          {current.rules.length === 0 ? 'no rule' : current.rules.map(({ words, why }) => `${words}: ${why}`).join('; ')}. What you typed is
          still here; keep it to put it in its place.
        </p>
      ) : null}
    </Asking>
  );
}
