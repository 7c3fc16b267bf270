import { ENDPOINTS, WantBody } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { Field } from '../kit/field.tsx';
import { minorOf } from '../kit/money.ts';
import { useSameId } from '../kit/same-id.ts';
import { ask } from '../link/client.ts';
import { refreshStores, useSuppliers } from './queries.ts';

interface OrderItProps {
  readonly number: string | null;
  readonly name: string;
  readonly pieces: number;
  readonly jobId?: string;
}

/** Puts on the order of a supplier by hand what no catalogue has yet: the number and its price are kept with them. */
export function OrderIt(props: OrderItProps): ReactElement | null {
  const [isAsked, setAsked] = useState(false);
  const [put, setPut] = useState<string>();
  const { data: suppliers } = useSuppliers();
  if (!suppliers) return null;
  const byHand = suppliers.filter(({ byHand: hand, isGone }) => hand && !isGone).map(({ name }) => name);
  if (put !== undefined)
    return (
      <p className="v-in mb-0" role="status">
        It is on the order of {put}. <Link to="/stores/orders">Orders and goods in</Link>
      </p>
    );
  if (byHand.length === 0)
    return (
      <p className="soft mb-0">
        To order it: <Link to="/stores/suppliers">put in whom you order from</Link>.
      </p>
    );
  if (isAsked) return <OrderForm {...props} suppliers={byHand} onDone={setPut} />;
  return (
    <Button variant="plain" onClick={() => setAsked(true)}>
      Order<span className="visually-hidden"> {props.name}</span> by hand
    </Button>
  );
}

interface OrderFormProps extends OrderItProps {
  readonly suppliers: readonly string[];
  readonly onDone: (supplier: string) => void;
}

function OrderForm({ number, name, pieces, jobId, suppliers, onDone }: OrderFormProps): ReactElement {
  const { idOf, isDone } = useSameId();
  const form = useAskForm<Readonly<Record<'supplier' | 'number' | 'quantity' | 'price', string>>, WantBody>({
    type: WantBody,
    initial: { supplier: suppliers[0]!, number: number ?? '', quantity: String(pieces), price: '' },
    names: {
      'lines.0.supplier': 'supplier',
      'lines.0.number': 'number',
      'lines.0.quantity': 'quantity',
      'lines.0.priceMinor': 'price',
      'lines[0].supplier': 'supplier',
      'lines[0].number': 'number',
      'lines[0].quantity': 'quantity',
      'lines[0].priceMinor': 'price',
    },
    toBody: (typed) => ({
      lines: [
        {
          id: idOf(typed),
          supplier: typed.supplier,
          number: typed.number.trim(),
          quantity: Number(typed.quantity),
          ...(jobId === undefined ? {} : { jobId }),
          name,
          // What it costs is known where it was ordered before.
          ...(typed.price.trim() === '' ? {} : { priceMinor: minorOf(typed.price) ?? Number.NaN }),
        },
      ],
    }),
    onSend: async (body, { supplier }) => {
      await ask(ENDPOINTS.orders.want, { body });
      isDone();
      await refreshStores();
      onDone(supplier);
    },
  });
  return (
    <Asking of={form} className="mt-2" act="Put it on the order">
      <div className="row">
        <Field of="order" name="supplier" label="From" wrap="col-6 mb-2" options={suppliers.map((one) => [one, one] as const)} />
        <Field of="order" name="number" label="Number there" maxLength={60} wrap="col-6 mb-2" className="fig" />
        <Field of="order" name="quantity" label="Pieces" inputMode="numeric" maxLength={5} wrap="col-6 mb-2" className="fig" />
        <Field
          of="order"
          name="price"
          label="One costs"
          inputMode="decimal"
          maxLength={12}
          wrap="col-6 mb-2"
          className="fig"
          hint="Empty: as it was the last time."
        />
      </div>
    </Asking>
  );
}
