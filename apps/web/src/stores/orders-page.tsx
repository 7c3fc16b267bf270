import { orderMinor, toCome, type OrderState } from '@jubb/book';
import { SUPPLIER_FAULTS, type SupplierFault } from '@jubb/sheet';
import { ENDPOINTS, type GoodsInBody, type OrderView } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import { Link } from 'react-router';
import { v7 as uuid } from 'uuid';
import { ask } from '../link/client.ts';
import { useMoney } from '../kit/money.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useSend } from '../kit/use-send.ts';
import { dayWords } from '../kit/days.ts';
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

function Order({ order }: { readonly order: OrderView }): ReactElement {
  const money = useMoney();
  const { busy, error, send } = useSend();
  const run = (work: () => Promise<unknown>): void => void send(work).then(refreshStores);
  const sum = orderMinor(order.lines);
  return (
    <section className="work mb-3" aria-label={`Order ${order.number}`}>
      <h2>
        <span className="fig fs-3">{order.number}</span> {order.supplier}{' '}
        <span className={order.state === 'differs' ? 'v-out' : 'soft'}>
          {STATE_WORDS[order.state]}
          {order.sentAt ? `, sent ${dayWords(order.sentAt)}` : ''}
        </span>
      </h2>
      <table className="table">
        <thead>
          <tr>
            <th scope="col">Number</th>
            <th scope="col">What</th>
            <th scope="col">Job</th>
            <th scope="col">Ordered</th>
            <th scope="col">Confirmed</th>
            <th scope="col">Due</th>
            <th scope="col">Here</th>
            <th scope="col">Each</th>
            {order.state === 'open' ? (
              <th scope="col">
                <span className="visually-hidden">Take off</span>
              </th>
            ) : null}
          </tr>
        </thead>
        <tbody>
          {order.lines.map((line) => (
            <tr key={line.id}>
              <td className="fig">{line.number}</td>
              <td>{line.name}</td>
              <td className="fig">{line.jobId === null ? '' : <Link to={`/jobs/${line.jobId}/parts`}>{line.jobNumber}</Link>}</td>
              <td className="fig">{line.quantity}</td>
              <td className={`fig ${line.confirmed !== null && line.confirmed !== line.quantity ? 'v-out' : ''}`}>
                {line.confirmed === 0 ? 'none: sold out' : (line.confirmed ?? '')}
              </td>
              <td>{line.due === null ? '' : dayWords(line.due)}</td>
              <td className="fig">
                {line.received > 0 ? line.received : ''}{' '}
                {line.returned > 0 ? <span className="v-out">{line.returned} wrong, back</span> : null}
              </td>
              <td className="fig">{money(line.priceMinor)}</td>
              {order.state === 'open' ? (
                <td>
                  <button
                    type="button"
                    className="btn btn-quiet"
                    disabled={busy}
                    onClick={() => run(() => ask(ENDPOINTS.orders.drop, { id: line.id }))}
                  >
                    Take off <span className="visually-hidden">{line.number}</span>
                  </button>
                </td>
              ) : null}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="fig fs-5 mb-2">In all {money(sum)}</p>
      <Wrong error={error} />
      <div className="keys">
        {order.state === 'open' ? (
          <button
            type="button"
            className="btn btn-primary"
            disabled={busy}
            onClick={() => run(() => ask(ENDPOINTS.orders.send, { id: order.id }))}
          >
            Send the order
          </button>
        ) : null}
        {order.state === 'sent' ? (
          <button
            type="button"
            className="btn btn-primary"
            disabled={busy}
            onClick={() => run(() => ask(ENDPOINTS.orders.send, { id: order.id }))}
          >
            Ask for the confirmation again
          </button>
        ) : null}
        {order.state === 'differs' ? (
          <>
            <button
              type="button"
              className="btn btn-primary"
              disabled={busy}
              onClick={() => run(() => ask(ENDPOINTS.orders.settle, { id: order.id, body: { asConfirmed: true } }))}
            >
              Take it as confirmed
            </button>
            <button
              type="button"
              className="btn btn-plain"
              disabled={busy}
              onClick={() => run(() => ask(ENDPOINTS.orders.settle, { id: order.id, body: { asConfirmed: false } }))}
            >
              Take those lines off
            </button>
          </>
        ) : null}
        {order.state === 'confirmed' && order.notes.length === 0 ? (
          <button
            type="button"
            className="btn btn-plain"
            disabled={busy}
            onClick={() => run(() => ask(ENDPOINTS.orders.deliver, { id: order.id }))}
          >
            The stand-in’s van comes
          </button>
        ) : null}
      </div>
      {order.notes.length > 0 ? <GoodsIn order={order} /> : null}
    </section>
  );
}

/** What lies on the counter: each bag by what stands on it, counted before it is put away. */
function GoodsIn({ order }: { readonly order: OrderView }): ReactElement {
  const [id] = useState(() => uuid());
  const [counted, setCounted] = useState<Readonly<Record<string, { number: string; quantity: string; why: string }>>>(
    Object.fromEntries(order.notes.map((note) => [note.lineId, { number: note.number, quantity: String(note.quantity), why: '' }])),
  );
  const { busy, error, send } = useSend();
  const put = (): void => {
    const body: GoodsInBody = {
      id,
      lines: order.notes.map(({ lineId }) => {
        const { number, quantity, why } = counted[lineId]!;
        return { lineId, number, quantity: Number(quantity), ...(why.trim() ? { why: why.trim() } : {}) };
      }),
    };
    void send(() => ask(ENDPOINTS.orders.goodsIn, { id: order.id, body })).then(refreshStores);
  };
  return (
    <div className="mt-3">
      <h3>The van brought</h3>
      {order.notes.map((note) => {
        const line = order.lines.find(({ id: lineId }) => lineId === note.lineId);
        const typed = counted[note.lineId]!;
        const isWrong = line && typed.number.trim() !== line.number;
        const owed = line ? toCome(line) : 0;
        const isMore = !isWrong && Number(typed.quantity) > owed;
        return (
          <div key={note.lineId} className="d-flex flex-wrap gap-3 align-items-end mb-2">
            <div>
              <label className="form-label" htmlFor={`bag-${note.lineId}`}>
                {line?.name}: on the bag
              </label>
              <input
                id={`bag-${note.lineId}`}
                className={`form-control fig ${isWrong ? 'is-invalid' : ''}`}
                value={typed.number}
                maxLength={60}
                onChange={(event) => setCounted({ ...counted, [note.lineId]: { ...typed, number: event.target.value } })}
              />
            </div>
            <div style={{ width: 110 }}>
              <label className="form-label" htmlFor={`count-${note.lineId}`}>
                Pieces
              </label>
              <input
                id={`count-${note.lineId}`}
                className="form-control fig"
                inputMode="numeric"
                value={typed.quantity}
                onChange={(event) => setCounted({ ...counted, [note.lineId]: { ...typed, quantity: event.target.value } })}
              />
            </div>
            {isMore ? (
              <div className="flex-grow-1">
                <label className="form-label" htmlFor={`why-${note.lineId}`}>
                  {owed} {owed === 1 ? 'is' : 'are'} still due. Why more is kept
                </label>
                <input
                  id={`why-${note.lineId}`}
                  className="form-control"
                  value={typed.why}
                  maxLength={200}
                  onChange={(event) => setCounted({ ...counted, [note.lineId]: { ...typed, why: event.target.value } })}
                />
              </div>
            ) : null}
            {isWrong ? <span className="v-out">{line.number} was ordered: these go back</span> : null}
          </div>
        );
      })}
      <Wrong error={error} />
      <button type="button" className="btn btn-primary" disabled={busy} onClick={put}>
        Put it away
      </button>
    </div>
  );
}

/** Drives the stand-in that plays the suppliers. */
function StandIn(): ReactElement {
  const { data: suppliers = [] } = useSuppliers();
  const { error, send } = useSend();
  const set = (name: string, fault: SupplierFault): void =>
    void send(() => ask(ENDPOINTS.orders.fault, { name, body: { fault } })).then(refreshStores);
  return (
    <section className="mt-4">
      <h2>Stand-in for the suppliers</h2>
      <p className="soft">No real supplier is behind this: a stand-in takes the orders. What goes wrong next is picked here.</p>
      <Wrong error={error} />
      {suppliers.map(({ name, fault, items }) => (
        <div key={name} className="d-flex gap-3 align-items-end mb-2">
          <div>
            <label className="form-label" htmlFor={`fault-${name}`}>
              {name} <span className="soft fw-normal">{items} numbers</span>
            </label>
            <select
              id={`fault-${name}`}
              className="form-select"
              value={fault}
              onChange={(event) => set(name, event.target.value as SupplierFault)}
            >
              {SUPPLIER_FAULTS.map((one) => (
                <option key={one} value={one}>
                  {one === 'none' ? 'nothing goes wrong' : one}
                </option>
              ))}
            </select>
          </div>
        </div>
      ))}
    </section>
  );
}
