import { orderMinor, type OrderState } from '@jubb/book';
import { SUPPLIER_FAULTS, type SupplierFault } from '@jubb/sheet';
import { ENDPOINTS, type OrderView } from '@jubb/wire';
import type { ReactElement } from 'react';
import { Link } from 'react-router';
import { v7 as uuid } from 'uuid';
import { DataTable, type Column } from '../kit/data-table.tsx';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import { ask } from '../link/client.ts';
import { useMoney } from '../kit/money.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { offerUndo } from '../kit/undo.ts';
import { useSend } from '../kit/use-send.ts';
import { dayWords } from '../kit/days.ts';
import { GoodsIn } from './goods-in.tsx';
import { ByHand, Letter } from './order-by-hand.tsx';
import { refreshStores, useOrders, useSuppliers } from './queries.ts';

const STATE_WORDS: Readonly<Record<OrderState, string>> = {
  open: 'being gathered',
  sent: 'sent, not confirmed yet',
  differs: 'confirmed otherwise than ordered',
  confirmed: 'confirmed',
  delivered: 'all here',
};

/** What is gathered for each supplier, what is on its way, and what the van brought. */
export function OrdersPage(): ReactElement {
  const { data: orders, error } = useOrders();
  return (
    <>
      <Title sub="One order for each supplier, for all jobs together. It is sent once, however often the key is pressed.">
        Orders and goods in
      </Title>
      <p>
        <Link to="/stores/suppliers">Suppliers</Link>
      </p>
      <Wrong error={error} />
      {!orders && !error ? <Loading what="the orders" /> : null}
      {orders?.length === 0 ? <p>Nothing is on order. What a job needs is put on an order from its list of parts.</p> : null}
      {(orders ?? []).map((order) => (
        <Order key={order.id} order={order} />
      ))}
      <StandIn />
    </>
  );
}

type OrderLine = OrderView['lines'][number];

const columnsIn = (money: (minor: number) => string): readonly Column<OrderLine>[] => [
  { id: 'number', head: 'Number', cellClass: 'fig', value: ({ number }) => number },
  { id: 'name', head: 'What', value: ({ name }) => name },
  {
    id: 'job',
    head: 'Job',
    cellClass: 'fig',
    value: ({ jobNumber }) => jobNumber ?? '',
    cell: ({ jobId, jobNumber }) => (jobId === null ? '' : <Link to={`/jobs/${jobId}/parts`}>{jobNumber}</Link>),
  },
  { id: 'quantity', head: 'Ordered', cellClass: 'fig', value: ({ quantity }) => quantity },
  {
    id: 'confirmed',
    head: 'Confirmed',
    cellClass: 'fig',
    value: ({ confirmed }) => confirmed ?? '',
    cell: ({ confirmed, quantity }) => (
      <span className={confirmed !== null && confirmed !== quantity ? 'v-out' : undefined}>
        {confirmed === 0 ? 'none: sold out' : (confirmed ?? '')}
      </span>
    ),
  },
  { id: 'due', head: 'Due', value: ({ due }) => due ?? '', cell: ({ due }) => (due === null ? '' : dayWords(due)) },
  {
    id: 'here',
    head: 'Here',
    cellClass: 'fig',
    value: ({ received }) => received,
    cell: ({ received, returned }) => (
      <>
        {received > 0 ? received : ''} {returned > 0 ? <span className="v-out">{returned} wrong, back</span> : null}
      </>
    ),
  },
  { id: 'price', head: 'Each', cellClass: 'fig', value: ({ priceMinor }) => priceMinor / 100, cell: ({ priceMinor }) => money(priceMinor) },
];

function Order({ order }: { readonly order: OrderView }): ReactElement {
  const money = useMoney();
  const { busy, error, send } = useSend();
  const run = (work: () => Promise<unknown>): void => void send(work).then(refreshStores);
  const sum = orderMinor(order.lines);
  const drop = async ({ id, number, quantity, jobId }: OrderLine): Promise<void> => {
    await ask(ENDPOINTS.orders.drop, { id });
    offerUndo(`${number} is off the order`, async () => {
      const line = { id: uuid(), supplier: order.supplier, number, quantity, ...(jobId === null ? {} : { jobId }) };
      await ask(ENDPOINTS.orders.want, { body: { lines: [line] } });
      await refreshStores();
    });
  };
  const columns: readonly Column<OrderLine>[] = [
    ...columnsIn(money),
    ...(order.state === 'open'
      ? [
          {
            id: 'off',
            head: 'Take off',
            value: () => '',
            cell: (line: OrderLine) => (
              <Button variant="quiet" disabled={busy} onClick={() => run(() => drop(line))}>
                Take off <span className="visually-hidden">{line.number}</span>
              </Button>
            ),
          },
        ]
      : []),
  ];
  return (
    <section className="work mb-3" aria-label={`Order ${order.number}`}>
      <h2>
        <span className="fig fs-3">{order.number}</span> {order.supplier}{' '}
        <span className={order.state === 'differs' ? 'v-out' : 'soft'}>
          {STATE_WORDS[order.state]}
          {order.sentAt ? `, sent ${dayWords(order.sentAt)}` : ''}
        </span>
      </h2>
      <DataTable name={`order-${order.number}`} columns={columns} rows={order.lines} rowKey={({ id }) => id} isBare />
      <p className="fig fs-5 mb-2">In all {money(sum)}</p>
      <Wrong error={error} />
      {order.byHand && order.state === 'open' ? <Letter order={order} /> : null}
      <div className="keys">
        {order.state === 'open' ? (
          <Button variant="primary" disabled={busy} onClick={() => run(() => ask(ENDPOINTS.orders.send, { id: order.id }))}>
            {order.byHand ? 'It has gone out' : 'Send the order'}
          </Button>
        ) : null}
        {order.state === 'sent' && !order.byHand ? (
          <Button variant="primary" disabled={busy} onClick={() => run(() => ask(ENDPOINTS.orders.send, { id: order.id }))}>
            Ask for the confirmation again
          </Button>
        ) : null}
        {order.state === 'differs' ? (
          <>
            <Button
              variant="primary"
              disabled={busy}
              onClick={() => run(() => ask(ENDPOINTS.orders.settle, { id: order.id, body: { asConfirmed: true } }))}
            >
              Take it as confirmed
            </Button>
            <Button
              variant="plain"
              disabled={busy}
              onClick={() => run(() => ask(ENDPOINTS.orders.settle, { id: order.id, body: { asConfirmed: false } }))}
            >
              Take those lines off
            </Button>
          </>
        ) : null}
        {order.state === 'confirmed' && !order.byHand && order.notes.length === 0 ? (
          <Button variant="plain" disabled={busy} onClick={() => run(() => ask(ENDPOINTS.orders.deliver, { id: order.id }))}>
            The stand-in’s van comes
          </Button>
        ) : null}
      </div>
      {order.byHand ? <ByHand order={order} /> : null}
      {order.notes.length > 0 ? <GoodsIn order={order} notes={order.notes} /> : null}
    </section>
  );
}

/** Drives the stand-in that plays the suppliers. */
function StandIn(): ReactElement | null {
  const { data } = useSuppliers();
  const suppliers = (data ?? []).filter(({ byHand }) => !byHand);
  const { error, send } = useSend();
  const set = (name: string, fault: SupplierFault): void =>
    void send(() => ask(ENDPOINTS.orders.fault, { name, body: { fault } })).then(refreshStores);
  if (suppliers.length === 0) return null;
  return (
    <section className="mt-4">
      <h2>Stand-in for the suppliers</h2>
      <p className="soft">No real supplier is behind this: a stand-in takes the orders. What goes wrong next is picked here.</p>
      <Wrong error={error} />
      {suppliers.map(({ name, fault, items }) => (
        <div key={name} className="d-flex gap-3 align-items-end mb-2">
          <div>
            <FormLabel htmlFor={`fault-${name}`}>
              {name} <span className="soft fw-normal">{items} numbers</span>
            </FormLabel>
            <FormSelect id={`fault-${name}`} value={fault} onChange={(event) => set(name, event.target.value as SupplierFault)}>
              {SUPPLIER_FAULTS.map((one) => (
                <option key={one} value={one}>
                  {one === 'none' ? 'nothing goes wrong' : one}
                </option>
              ))}
            </FormSelect>
          </div>
        </div>
      ))}
    </section>
  );
}
