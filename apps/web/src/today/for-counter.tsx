import { ENDPOINTS, type AnswerDue, type OrderView } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import type { ReactElement } from 'react';
import Table from 'react-bootstrap/Table';
import { Link } from 'react-router';
import { ask } from '../link/client.ts';
import { useOrders } from '../stores/queries.ts';
import { dayWords, shopToday } from '../kit/days.ts';
import { Loading, Wrong } from '../kit/pieces.tsx';

const ANEW_MS = 60_000;

interface ForCounterProps {
  /** Whoever looks after it sees that there is nothing, too. */
  readonly isOwn: boolean;
}

/** What the counter looks after: who owes an answer, and what the van is to bring. */
export function ForCounter({ isOwn }: ForCounterProps): ReactElement {
  return (
    <>
      <Answers isOwn={isOwn} />
      <Goods isOwn={isOwn} />
    </>
  );
}

function Answers({ isOwn }: ForCounterProps): ReactElement | null {
  const { data, error } = useQuery({
    queryKey: ['quotes', 'open'],
    queryFn: () => ask(ENDPOINTS.quotes.open),
    refetchInterval: ANEW_MS,
  });
  if (!data) return error ? <Wrong error={error} /> : <Loading what="the quotes" />;
  if (data.length === 0 && !isOwn) return null;
  return (
    <section className="mt-4">
      <h2>Answers due</h2>
      {data.length === 0 ? <p className="soft">No customer owes an answer.</p> : null}
      <Table>
        <tbody>
          {data.map((quote) => (
            <AnswerRow key={quote.quoteId} quote={quote} />
          ))}
        </tbody>
      </Table>
    </section>
  );
}

function AnswerRow({ quote }: { readonly quote: AnswerDue }): ReactElement {
  const isOver = quote.validUntil < shopToday();
  return (
    <tr>
      <td className="fig fs-4" style={{ width: 64 }}>
        <Link to={`/jobs/${quote.jobId}/quote`}>{quote.jobNumber}</Link>
      </td>
      <td>
        {quote.customer}, {quote.unit}.{' '}
        <span className="soft">
          Quote {quote.number}, sent {dayWords(quote.sentAt)}.
        </span>
        {quote.asked === null ? null : <div className="brass">Asks: {quote.asked}</div>}
      </td>
      <td className="text-nowrap">{quote.phone}</td>
      <td className={`text-end text-nowrap ${isOver ? 'v-out' : 'soft'}`}>
        {isOver ? 'ran out' : 'good until'} {dayWords(quote.validUntil)}
      </td>
    </tr>
  );
}

function Goods({ isOwn }: ForCounterProps): ReactElement | null {
  const { data, error } = useOrders();
  if (!data) return error ? <Wrong error={error} /> : <Loading what="the orders" />;
  const due = data.filter(({ state }) => state === 'sent' || state === 'confirmed' || state === 'differs');
  if (due.length === 0 && !isOwn) return null;
  return (
    <section className="mt-4">
      <h2>Goods due in</h2>
      {due.length === 0 ? <p className="soft">Nothing is on its way.</p> : null}
      <Table>
        <tbody>
          {due
            .toSorted((one, other) => (dueOf(one) ?? '9').localeCompare(dueOf(other) ?? '9'))
            .map((order) => (
              <GoodsRow key={order.id} order={order} />
            ))}
        </tbody>
      </Table>
    </section>
  );
}

/** The first day on which something of it is due. */
function dueOf({ lines }: OrderView): string | undefined {
  return lines
    .filter(({ quantity, received }) => received < quantity)
    .flatMap(({ due }) => due ?? [])
    .toSorted()[0];
}

function GoodsRow({ order }: { readonly order: OrderView }): ReactElement {
  const due = dueOf(order);
  const jobs = [...new Set(order.lines.flatMap(({ jobNumber }) => jobNumber ?? []))];
  const isLate = due !== undefined && due < shopToday();
  return (
    <tr>
      <td className="fig fs-4" style={{ width: 64 }}>
        <Link to="/stores/orders">{order.number}</Link>
      </td>
      <td>
        {order.supplier}, {order.lines.length} {order.lines.length === 1 ? 'line' : 'lines'}
        {jobs.length > 0 ? <span className="soft"> for {jobs.join(', ')}</span> : null}
        {order.state === 'differs' ? <span className="v-out"> confirmed otherwise than ordered</span> : null}
      </td>
      <td className={`text-end text-nowrap ${isLate ? 'v-out' : 'soft'}`}>
        {order.state === 'sent'
          ? 'not confirmed yet'
          : due === undefined
            ? 'no day named'
            : `due ${dayWords(due)}${isLate ? ', late' : ''}`}
      </td>
    </tr>
  );
}
