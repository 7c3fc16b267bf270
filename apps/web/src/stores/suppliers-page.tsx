import type { SupplierOffer } from '@jubb/book';
import { ENDPOINTS, OfferBody, SupplierBody, SupplierChangeBody, type SupplierView } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { Field } from '../kit/field.tsx';
import { minorOf, useMoney } from '../kit/money.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { offerUndo } from '../kit/undo.ts';
import { useSend } from '../kit/use-send.ts';
import { ask, meanwhile } from '../link/client.ts';
import { useSession } from '../link/queries.ts';
import { refreshStores, useSuppliers } from './queries.ts';

/** Whom the shop orders from: how they are reached, and what is known of their catalogue. */
export function SuppliersPage(): ReactElement {
  const { data: suppliers, error } = useSuppliers();
  const [chosen, setChosen] = useState<string>();
  const { data: session } = useSession();
  const mayChange = session !== undefined && session !== null && session.person.role !== 'apprentice';
  const columns = useMemo((): readonly Column<SupplierView>[] => {
    const words = ({ byHand, isGone }: SupplierView): string => (isGone ? 'no more orders' : byHand ? 'by hand' : 'stand-in');
    return [
      {
        id: 'name',
        head: 'Name',
        value: ({ name }) => name,
        cell: ({ name, byHand }) =>
          byHand ? (
            <Button variant="quiet" className="p-0" aria-pressed={name === chosen} onClick={() => setChosen(name)}>
              {name}
            </Button>
          ) : (
            name
          ),
      },
      { id: 'reached', head: 'Reached by', value: ({ email, phone }) => [phone, email].filter(Boolean).join(', ') },
      { id: 'account', head: 'Our number', cellClass: 'fig', value: ({ account }) => account ?? '' },
      { id: 'days', head: 'Days', cellClass: 'fig', value: ({ leadDays }) => leadDays },
      { id: 'items', head: 'Prices', cellClass: 'fig', value: ({ items }) => items },
      { id: 'how', head: 'Orders', value: words },
    ];
  }, [chosen]);
  const one = suppliers?.find(({ name }) => name === chosen);
  return (
    <>
      <Title
        sub={
          <>
            <Link to="/stores/orders">Orders and goods in</Link>
            {session?.person.role === 'foreman' ? (
              <>
                {' '}
                · <Link to="/shop/bring?list=prices">Bring in a list of prices</Link>
              </>
            ) : null}
          </>
        }
      >
        Suppliers
      </Title>
      <Wrong error={error} />
      {!suppliers && !error ? <Loading what="the suppliers" /> : null}
      {suppliers?.length === 0 ? (
        <p>There is none yet. Put in whom you order from: what is missing for a job goes on their order.</p>
      ) : null}
      {suppliers && suppliers.length > 0 ? (
        <DataTable name="suppliers" columns={columns} rows={suppliers} rowKey={({ name }) => name} />
      ) : null}
      <div className="two mt-4">
        {one ? <OneSupplier key={one.name} supplier={one} mayChange={mayChange} /> : null}
        {mayChange ? <NewSupplier onDone={setChosen} /> : null}
      </div>
    </>
  );
}

/** How they are reached; `of` tells the two forms of the page apart. */
function Reached({ of }: { readonly of: string }): ReactElement {
  return (
    <>
      <Field of={of} name="email" label="E-mail" maxLength={200} />
      <Field of={of} name="phone" label="Telephone" maxLength={60} />
      <Field of={of} name="account" label="Our number with them" maxLength={60} />
      <Field of={of} name="leadDays" label="Days until it is here" inputMode="numeric" className="fig" maxLength={3} />
    </>
  );
}

type Typed = Readonly<Record<'name' | 'email' | 'phone' | 'account' | 'leadDays', string>>;

function reached({ email, phone, account, leadDays }: Omit<Typed, 'name'>): Omit<SupplierBody, 'name'> {
  const said = (name: 'email' | 'phone' | 'account', text: string): object => (text.trim() ? { [name]: text.trim() } : {});
  return {
    ...said('email', email),
    ...said('phone', phone),
    ...said('account', account),
    leadDays: leadDays.trim() === '' ? Number.NaN : Number(leadDays),
  };
}

function NewSupplier({ onDone }: { readonly onDone: (name: string) => void }): ReactElement {
  const empty = { name: '', email: '', phone: '', account: '', leadDays: '3' };
  const form = useAskForm<Typed, SupplierBody>({
    type: SupplierBody,
    draft: 'supplier.new',
    initial: empty,
    toBody: ({ name, ...rest }) => ({ name, ...reached(rest) }),
    onSend: async (body) => {
      const { name } = await ask(ENDPOINTS.orders.addSupplier, { body });
      await refreshStores();
      form.begin(empty);
      onDone(name);
    },
  });
  return (
    <section className="work" aria-label="Somebody new">
      <h2>Somebody new</h2>
      <Asking of={form} act="Put them in">
        <Field of="supplier-new" name="name" label="Name" maxLength={80} hint="As it is to stand on the order; it stays." />
        <Reached of="supplier-new" />
      </Asking>
    </section>
  );
}

function OneSupplier({ supplier, mayChange }: { readonly supplier: SupplierView; readonly mayChange: boolean }): ReactElement {
  const { name, isGone } = supplier;
  // As it was when this was opened: what somebody else changes meanwhile is told, not written over.
  const [version, setVersion] = useState(supplier.version);
  const form = useAskForm<Omit<Typed, 'name'> & { readonly isGone: string }, SupplierChangeBody>({
    type: SupplierChangeBody,
    initial: {
      email: supplier.email ?? '',
      phone: supplier.phone ?? '',
      account: supplier.account ?? '',
      leadDays: String(supplier.leadDays),
      isGone: String(isGone),
    },
    toBody: ({ isGone: gone, ...rest }) => ({ version, ...reached(rest), isGone: gone === 'true' }),
    onSend: async (body) => {
      const kept = await ask(ENDPOINTS.orders.changeSupplier, { name, body: { ...body, version: current?.version ?? version } });
      setVersion(kept.version);
      await refreshStores();
    },
  });
  const current = meanwhile<SupplierView>(form.error);
  return (
    <section className="work" aria-label={name}>
      <h2>{name}</h2>
      {mayChange ? (
        <Asking of={form} act="Keep it">
          <Reached of="supplier" />
          <Field
            of="supplier"
            name="isGone"
            label="Orders"
            options={[
              ['false', 'go there'],
              ['true', 'go there no more'],
            ]}
          />
          {current ? <p>Somebody changed it meanwhile. Keep it to put yours in its place.</p> : null}
        </Asking>
      ) : null}
      <Prices name={name} mayChange={mayChange} />
    </section>
  );
}

function Prices({ name, mayChange }: { readonly name: string; readonly mayChange: boolean }): ReactElement {
  const money = useMoney();
  const { busy, error: refusal, send } = useSend();
  const { data: offers, error } = useQuery({
    queryKey: ['stores', 'catalogue', name],
    queryFn: () => ask(ENDPOINTS.orders.catalogue, { name }),
  });
  const keep = async (offer: OfferBody): Promise<void> => {
    await ask(ENDPOINTS.orders.keepOffer, { name, body: offer });
    await refreshStores();
  };
  const drop = ({ number, name: what, priceMinor }: SupplierOffer): void =>
    void send(async () => {
      await ask(ENDPOINTS.orders.dropOffer, { name, number });
      await refreshStores();
      offerUndo(`${number} is off the list`, () => keep({ number, name: what, priceMinor }));
    });
  const columns: readonly Column<SupplierOffer>[] = [
    { id: 'number', head: 'Number', cellClass: 'fig', value: ({ number }) => number },
    { id: 'name', head: 'What', value: (offer) => offer.name },
    {
      id: 'price',
      head: 'Each',
      cellClass: 'fig',
      value: ({ priceMinor }) => priceMinor / 100,
      cell: ({ priceMinor }) => money(priceMinor),
    },
    ...(mayChange
      ? [
          {
            id: 'off',
            head: 'Take off',
            value: () => '',
            cell: (offer: SupplierOffer) => (
              <Button variant="quiet" disabled={busy} onClick={() => drop(offer)}>
                Take off <span className="visually-hidden">{offer.number}</span>
              </Button>
            ),
          },
        ]
      : []),
  ];
  return (
    <>
      <h3 className="mt-4">What they have</h3>
      <Wrong error={error ?? refusal} />
      {offers?.length === 0 ? <p className="soft">No price is known yet; what is ordered is kept here by itself.</p> : null}
      {offers && offers.length > 0 ? (
        <DataTable name={`prices-${name}`} columns={columns} rows={offers} rowKey={({ number }) => number} isBare />
      ) : null}
      {mayChange ? <NewPrice onKeep={keep} /> : null}
    </>
  );
}

function NewPrice({ onKeep }: { readonly onKeep: (offer: OfferBody) => Promise<void> }): ReactElement {
  const empty = { number: '', name: '', price: '' };
  const form = useAskForm<typeof empty, OfferBody>({
    type: OfferBody,
    initial: empty,
    names: { priceMinor: 'price' },
    toBody: ({ number, name, price }) => ({ number, name, priceMinor: minorOf(price) ?? Number.NaN }),
    onSend: async (body) => {
      await onKeep(body);
      form.begin(empty);
    },
  });
  return (
    <Asking of={form} className="mt-2" act="Keep the price">
      <div className="row">
        <Field of="price" name="number" label="Number" maxLength={60} wrap="col-6 mb-2" />
        <Field of="price" name="price" label="One costs" inputMode="decimal" className="fig" maxLength={12} wrap="col-6 mb-2" />
      </div>
      <Field of="price" name="name" label="What it is" maxLength={200} />
    </Asking>
  );
}
