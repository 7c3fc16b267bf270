import { orderMinor, toCome, type OrderState } from '@jubb/book';
import { SUPPLIER_FAULTS, type SupplierFault } from '@jubb/sheet';
import { ENDPOINTS, type ConfirmedLine, type GoodsInBody, type OrderView } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import { Link } from 'react-router';
import { v7 as uuid } from 'uuid';
import { DataTable, type Column } from '../kit/data-table.tsx';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import FormSelect from 'react-bootstrap/FormSelect';
import { ask } from '../link/client.ts';
import { useSession } from '../link/queries.ts';
import { amountText, minorOf, useMoney } from '../kit/money.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { offerUndo } from '../kit/undo.ts';
import { useSend } from '../kit/use-send.ts';
import { dayWords, inDays } from '../kit/days.ts';
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

/** What lies on the counter: each bag by what stands on it, counted before it is put away. */
function GoodsIn({ order, notes }: { readonly order: OrderView; readonly notes: OrderView['notes'] }): ReactElement {
  const [id] = useState(() => uuid());
  const [counted, setCounted] = useState<Readonly<Record<string, { number: string; quantity: string; why: string }>>>(
    Object.fromEntries(notes.map((note) => [note.lineId, { number: note.number, quantity: String(note.quantity), why: '' }])),
  );
  const { busy, error, send } = useSend();
  const put = (): void => {
    const body: GoodsInBody = {
      id,
      lines: notes.map(({ lineId }) => {
        const { number, quantity, why } = counted[lineId]!;
        return { lineId, number, quantity: Number(quantity), ...(why.trim() ? { why: why.trim() } : {}) };
      }),
    };
    void send(() => ask(ENDPOINTS.orders.goodsIn, { id: order.id, body })).then(refreshStores);
  };
  return (
    <div className="mt-3">
      <h3>{order.byHand ? 'What came' : 'The van brought'}</h3>
      {notes.map((note) => {
        const line = order.lines.find(({ id: lineId }) => lineId === note.lineId);
        const typed = counted[note.lineId]!;
        const isWrong = line && typed.number.trim() !== line.number;
        const owed = line ? toCome(line) : 0;
        const isMore = !isWrong && Number(typed.quantity) > owed;
        return (
          <div key={note.lineId} className="d-flex flex-wrap gap-3 align-items-end mb-2">
            <div>
              <FormLabel htmlFor={`bag-${note.lineId}`}>{line?.name}: on the bag</FormLabel>
              <FormControl
                id={`bag-${note.lineId}`}
                className={`fig ${isWrong ? 'is-invalid' : ''}`}
                value={typed.number}
                maxLength={60}
                onChange={(event) => setCounted({ ...counted, [note.lineId]: { ...typed, number: event.target.value } })}
              />
            </div>
            <div style={{ width: 110 }}>
              <FormLabel htmlFor={`count-${note.lineId}`}>Pieces</FormLabel>
              <FormControl
                id={`count-${note.lineId}`}
                className="fig"
                inputMode="numeric"
                value={typed.quantity}
                onChange={(event) => setCounted({ ...counted, [note.lineId]: { ...typed, quantity: event.target.value } })}
              />
            </div>
            {isMore ? (
              <div className="flex-grow-1">
                <FormLabel htmlFor={`why-${note.lineId}`}>
                  {owed} {owed === 1 ? 'is' : 'are'} still due. Why more is kept
                </FormLabel>
                <FormControl
                  id={`why-${note.lineId}`}
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
      <Button variant="primary" disabled={busy} onClick={put}>
        Put it away
      </Button>
    </div>
  );
}

/** What a supplier by hand said to an order, and what came of it. */
function ByHand({ order }: { readonly order: OrderView }): ReactElement | null {
  const [opened, setOpened] = useState<'said' | 'came'>();
  const left = order.lines.filter((line) => toCome(line) > 0);
  const wants = order.state === 'sent' ? 'said' : order.state === 'confirmed' ? 'came' : undefined;
  if (wants === undefined || left.length === 0) return null;
  const shown = opened ?? wants;
  return (
    <>
      <div className="keys mt-2">
        <Button variant="plain" className={shown === 'said' ? 'on' : ''} aria-pressed={shown === 'said'} onClick={() => setOpened('said')}>
          What they said
        </Button>
        {order.state === 'confirmed' ? (
          <Button
            variant="plain"
            className={shown === 'came' ? 'on' : ''}
            aria-pressed={shown === 'came'}
            onClick={() => setOpened('came')}
          >
            What came
          </Button>
        ) : null}
      </div>
      {shown === 'said' ? (
        <Said order={order} onDone={() => setOpened(undefined)} />
      ) : (
        <GoodsIn
          key={left.map((line) => `${line.id}${toCome(line)}`).join()}
          order={order}
          notes={left.map((line) => ({ lineId: line.id, number: line.number, quantity: toCome(line) }))}
        />
      )}
    </>
  );
}

/** The order in words, for a letter, an e-mail or the telephone. */
function Letter({ order }: { readonly order: OrderView }): ReactElement {
  const { data: session } = useSession();
  const shop = session?.shop.name ?? '';
  const text = [
    `Order ${order.number} of ${shop}${order.account === null ? '' : `, our number with you ${order.account}`}`,
    '',
    ...order.lines.map(({ quantity, number, name }) => `${quantity} × ${number}  ${name}`),
    '',
    'Please confirm quantity, price and day.',
  ].join('\n');
  const subject = `Order ${order.number}, ${shop}`;
  return (
    <div className="mb-2">
      <pre className="fig fs-6 mb-2" tabIndex={0} aria-label="The order in words">
        {text}
      </pre>
      <div className="keys">
        {order.email === null ? null : (
          <a
            className="btn btn-plain"
            href={`mailto:${encodeURIComponent(order.email)}?subject=${encodeURIComponent(subject)}&body=${encodeURIComponent(text.replaceAll('\n', '\r\n'))}`}
          >
            Write it to {order.email}
          </a>
        )}
        {order.phone === null ? null : (
          <a className="btn btn-plain" href={`tel:${order.phone.replaceAll(/\s/gu, '')}`}>
            Call {order.phone}
          </a>
        )}
      </div>
    </div>
  );
}

/** What a supplier said: so many of each, at what price, until when. */
function Said({ order, onDone }: { readonly order: OrderView; readonly onDone: () => void }): ReactElement {
  const { busy, error, send } = useSend();
  const [said, setSaid] = useState(
    Object.fromEntries(
      order.lines.map(({ id, quantity, confirmed, priceMinor, due }) => [
        id,
        { confirmed: String(confirmed ?? quantity), price: amountText(priceMinor), due: due ?? inDays(order.leadDays) },
      ]),
    ),
  );
  const put = (): void => {
    const lines = order.lines.map(({ id }): ConfirmedLine => {
      const { confirmed, price, due } = said[id]!;
      return { lineId: id, confirmed: Number(confirmed), priceMinor: minorOf(price) ?? Number.NaN, ...(due === '' ? {} : { due }) };
    });
    void send(() => ask(ENDPOINTS.orders.confirm, { id: order.id, body: { lines } })).then(async (ok) => {
      await refreshStores();
      if (ok) onDone();
    });
  };
  return (
    <div className="mt-2">
      {order.lines.map(({ id, number, name }) => {
        const typed = said[id]!;
        const set = (part: Partial<typeof typed>): void => setSaid({ ...said, [id]: { ...typed, ...part } });
        return (
          <fieldset key={id} className="d-flex flex-wrap gap-3 align-items-end mb-2">
            <legend className="fs-6 mb-0">
              <span className="fig">{number}</span> {name}
            </legend>
            <div style={{ width: 110 }}>
              <FormLabel htmlFor={`said-${id}`}>They send</FormLabel>
              <FormControl
                id={`said-${id}`}
                className="fig"
                inputMode="numeric"
                maxLength={5}
                value={typed.confirmed}
                onChange={(event) => set({ confirmed: event.target.value })}
              />
            </div>
            <div style={{ width: 130 }}>
              <FormLabel htmlFor={`price-${id}`}>One costs</FormLabel>
              <FormControl
                id={`price-${id}`}
                className="fig"
                inputMode="decimal"
                maxLength={12}
                value={typed.price}
                onChange={(event) => set({ price: event.target.value })}
              />
            </div>
            <div>
              <FormLabel htmlFor={`due-${id}`}>Here on</FormLabel>
              <FormControl id={`due-${id}`} type="date" value={typed.due} onChange={(event) => set({ due: event.target.value })} />
            </div>
          </fieldset>
        );
      })}
      <Wrong error={error} />
      <Button variant="primary" disabled={busy} onClick={put}>
        That is what they said
      </Button>
    </div>
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
