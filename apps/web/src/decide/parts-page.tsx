import { coverOffers, type MoveBody, type PartLine, type Parts, type WantBody } from '@jubb/contract/job';
import type { Cover } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import { Link } from 'react-router';
import { v7 as uuid } from 'uuid';
import { call } from '../api/client.ts';
import { useHere } from '../job/use-job.ts';
import { useMoney } from '../kit/money.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useSend } from '../kit/use-send.ts';
import { dayWords } from '../places/today.tsx';
import { refreshStores } from '../stores/queries.ts';
import { pieces } from '../stores/pieces.ts';
import { JobFrame } from './job-frame.tsx';
import { useCover } from './use-cover.ts';
import { useParts } from './use-parts.ts';

export function PartsPage(): ReactElement {
  return (
    <JobFrame>
      <PartsOfJob />
    </JobFrame>
  );
}

function PartsOfJob(): ReactElement {
  const { parts, error } = useParts();
  return (
    <>
      <Title sub="Made from what is decided, and from what the sheet proposes where nothing is decided yet.">Parts to have</Title>
      <Wrong error={error} />
      {!parts && !error ? <Loading what="shelves and catalogues" /> : null}
      {parts ? <Lines parts={parts} /> : null}
    </>
  );
}

function Lines({ parts }: { readonly parts: Parts }): ReactElement {
  const { job, state } = useHere();
  const { busy, error, send } = useSend();
  const move = (line: PartLine, kind: MoveBody['kind']): (() => Promise<unknown>) | undefined => {
    const shelf = [line.shelf, ...line.others].find((one) =>
      kind === 'reserve' ? one && one.onHand - one.reserved > 0 : one && one.reservedHere > 0,
    );
    if (!shelf) return undefined;
    const quantity = kind === 'reserve' ? Math.min(line.open, shelf.onHand - shelf.reserved) : shelf.reservedHere;
    if (quantity <= 0) return undefined;
    const body: MoveBody = { id: uuid(), kind, quantity, jobId: job.id, takenAt: new Date().toISOString() };
    return () => call('POST', `/stock/${shelf.id}/moves`, body);
  };
  const run = (...works: readonly ((() => Promise<unknown>) | undefined)[]): void =>
    void send(async () => {
      // One after the other: what one of them refuses leaves the others as they are.
      for (const work of works) await work?.();
    }).finally(() => void refreshStores());
  const here = parts.lines.filter((line) => move(line, 'reserve'));
  if (parts.lines.length === 0) return <p className="soft">Nothing to renew so far.</p>;
  return (
    <>
      <table className="table">
        <thead>
          <tr>
            <th scope="col">Pieces</th>
            <th scope="col">Part</th>
            <th scope="col">Number</th>
            <th scope="col">On the shelf</th>
            <th scope="col">For this job</th>
            <th scope="col">
              <span className="visually-hidden">Do</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {parts.lines.map((line) => (
            <PartRow
              key={line.need.parts.join() + line.need.name}
              line={line}
              busy={busy || state.handedOver !== undefined}
              onKeep={move(line, 'reserve')}
              onTake={move(line, 'issue')}
              run={run}
            />
          ))}
        </tbody>
      </table>
      <Wrong error={error} />
      {here.length > 0 && !state.handedOver ? (
        <button
          type="button"
          className="btn btn-primary mt-2"
          disabled={busy}
          onClick={() => run(...here.map((line) => move(line, 'reserve')))}
        >
          Keep all that is on the shelf
        </button>
      ) : null}
      {state.handedOver ? null : <OrderTheRest parts={parts} isNext={here.length === 0} />}
    </>
  );
}

interface PartRowProps {
  readonly line: PartLine;
  readonly busy: boolean;
  readonly onKeep: (() => Promise<unknown>) | undefined;
  readonly onTake: (() => Promise<unknown>) | undefined;
  readonly run: (work: () => Promise<unknown>) => void;
}

function PartRow({ line: { need, shelf, others, kept, out, ordered, due, open }, busy, onKeep, onTake, run }: PartRowProps): ReactElement {
  const free = (one: { onHand: number; reserved: number }): number => one.onHand - one.reserved;
  return (
    <tr>
      <td className="fig fs-5">{pieces(need.pieces, { unit: need.unit })}</td>
      <td>
        {need.name} {need.sure ? null : <span className="trust">not decided</span>}
        <div className="soft">{need.because}</div>
      </td>
      <td className="fig text-nowrap">
        {need.number ?? ''}
        {need.was === null ? null : <div className="soft">was {need.was}</div>}
      </td>
      <td>
        {shelf ? (
          <Link to={`/stores/${shelf.id}`} className="fig">
            {pieces(free(shelf), shelf)} free{shelf.location ? `, ${shelf.location}` : ''}
          </Link>
        ) : (
          <span className="soft">no line</span>
        )}
        {others
          .filter((one) => free(one) > 0 || one.reservedHere > 0)
          .map((one) => (
            <div key={one.id}>
              <Link to={`/stores/${one.id}`} className="fig">
                {one.number}
              </Link>{' '}
              fits: {pieces(free(one), one)} free
            </div>
          ))}
      </td>
      <td>
        {[
          kept > 0 ? `${pieces(kept, need)} kept` : '',
          out > 0 ? `${pieces(out, need)} out` : '',
          ordered > 0 ? `${ordered} on order${due === null ? '' : `, due ${dayWords(due)}`}` : '',
        ]
          .filter(Boolean)
          .join(', ')}
        {open > 0 ? <div className="v-out">{pieces(open, need)} missing</div> : null}
      </td>
      <td>
        <div className="d-flex flex-wrap gap-1 justify-content-end">
          {onKeep ? (
            <button type="button" className="btn btn-plain" disabled={busy} onClick={() => run(onKeep)}>
              Keep<span className="visually-hidden"> {need.name}</span>
            </button>
          ) : null}
          {onTake ? (
            <button type="button" className="btn btn-plain" disabled={busy} onClick={() => run(onTake)}>
              Take out<span className="visually-hidden"> {need.name}</span>
            </button>
          ) : null}
        </div>
      </td>
    </tr>
  );
}

/** The cheapest way to buy what is missing: kits against singles, put on the orders of their suppliers. */
function OrderTheRest({ parts, isNext }: { readonly parts: Parts; readonly isNext: boolean }): ReactElement | null {
  const { job } = useHere();
  const money = useMoney();
  const { busy, error, send } = useSend();
  const [ids] = useState(() => new Map<string, string>());
  const offers = coverOffers(parts);
  const buyable = new Set(offers.flatMap(({ brings }) => brings.map(({ need }) => need)));
  const needs = parts.lines.map(({ need, open }, place) => (need.unit === 'piece' && buyable.has(place) ? open : 0));
  const missing = parts.lines.filter(({ open, need }, place) => open > 0 && (need.unit !== 'piece' || !buyable.has(place)));
  const cover = useCover(
    needs,
    offers.map(({ id, price, brings }) => ({ id, price, brings })),
  );
  if (parts.lines.every(({ open }) => open === 0)) return <p className="v-in mt-3">All of it is kept, out, or on order.</p>;
  const put = (bought: Cover['buy']): void =>
    void send(async () => {
      for (const { id: number, times } of bought) {
        const offer = offers.find(({ id }) => id === number)!;
        const key = `${number}×${times}`;
        if (!ids.has(key)) ids.set(key, uuid());
        const body: WantBody = { id: ids.get(key)!, supplier: offer.supplier, number, quantity: times, jobId: job.id };
        await call('POST', '/orders/lines', body);
      }
      ids.clear();
    }).finally(() => void refreshStores());
  const singles = needs.reduce(
    (sum, open, place) => sum + open * (offers.find(({ brings }) => brings.length === 1 && brings[0]!.need === place)?.price ?? 0),
    0,
  );
  return (
    <section className="mt-4" aria-label="To order">
      <h2>To order</h2>
      {cover === undefined ? <Loading what="the cheapest way" /> : null}
      {cover && cover.buy.length > 0 ? (
        <>
          <table className="table">
            <thead>
              <tr>
                <th scope="col">Pieces</th>
                <th scope="col">What</th>
                <th scope="col">Number</th>
                <th scope="col">From</th>
                <th scope="col">Lead</th>
                <th scope="col">Each</th>
              </tr>
            </thead>
            <tbody>
              {cover.buy.map(({ id, times }) => {
                const offer = parts.view.offers.find(
                  ({ number, supplier }) => number === id && supplier === offers.find((one) => one.id === id)?.supplier,
                );
                const kit = parts.kits.find(({ number }) => number === id);
                return (
                  <tr key={id}>
                    <td className="fig fs-5">{times}</td>
                    <td>
                      {offer?.name}
                      {kit ? (
                        <div className="soft">kit: {kit.brings.map(({ need }) => parts.lines[need]?.need.name).join(', ')}</div>
                      ) : null}
                    </td>
                    <td className="fig">{id}</td>
                    <td>{offer?.supplier}</td>
                    <td className="fig">{offer ? `${offer.leadDays} to ${offer.leadDays + offer.leadSpread} d` : ''}</td>
                    <td className="fig">{money(offer?.priceMinor ?? 0)}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          <p>
            <span className="fig fs-4">{money(cover.price)}</span>{' '}
            <span className="soft">
              {singles > cover.price ? `${money(singles - cover.price)} less than piece by piece.` : 'No kit is cheaper than the pieces.'}
              {cover.exact ? '' : ' The search was given up: there may be a cheaper way.'}
            </span>
          </p>
          <Wrong error={error} />
          <button type="button" className={`btn ${isNext ? 'btn-primary' : 'btn-plain'}`} disabled={busy} onClick={() => put(cover.buy)}>
            Put it on the orders
          </button>{' '}
          <Link to="/stores/orders">Orders and goods in</Link>
        </>
      ) : null}
      {missing.length > 0 ? (
        <p className="soft mt-2">
          In no catalogue: {missing.map(({ need, open }) => `${pieces(open, need)} × ${need.name}`).join(', ')}. Ask by telephone, or look
          on the old part for another number.
        </p>
      ) : null}
    </section>
  );
}
