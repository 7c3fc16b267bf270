import { toCome } from '@jubb/book';
import { ENDPOINTS, type ConfirmedLine, type OrderView } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import FormControl from 'react-bootstrap/FormControl';
import FormLabel from 'react-bootstrap/FormLabel';
import { inDays } from '../kit/days.ts';
import { amountText, minorOf } from '../kit/money.ts';
import { Wrong } from '../kit/pieces.tsx';
import { useSend } from '../kit/use-send.ts';
import { ask } from '../link/client.ts';
import { useSession } from '../link/queries.ts';
import { GoodsIn } from './goods-in.tsx';
import { refreshStores } from './queries.ts';

/** What a supplier by hand said to an order, and what came of it. */
export function ByHand({ order }: { readonly order: OrderView }): ReactElement | null {
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
export function Letter({ order }: { readonly order: OrderView }): ReactElement {
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
