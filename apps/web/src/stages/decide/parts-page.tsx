import { coverOffers, movable, lackingOf, freeOf, risenSince, singlesMinor, sharedInHand, type PartLine, type Parts } from '@jubb/book';
import { ENDPOINTS, type WantedLine } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import { Link } from 'react-router';
import { v7 as uuid } from 'uuid';
import Table from 'react-bootstrap/Table';
import Button from 'react-bootstrap/Button';
import { ask } from '../../link/client.ts';
import { useSession } from '../../link/queries.ts';
import { useHere } from '../../job/use-job.ts';
import { AskFrom } from '../../job/recorder/ask-from.tsx';
import { outOfWords } from '../../job/recorder/use-new-parts.ts';
import { useMoney } from '../../kit/money.ts';
import { Loading, Title, Wrong } from '../../kit/pieces.tsx';
import { useSend } from '../../kit/use-send.ts';
import { dayWords } from '../../kit/days.ts';
import { moveOf } from '../../stores/move-of.ts';
import { OrderIt } from '../../stores/order-it.tsx';
import { refreshStores } from '../../stores/queries.ts';
import { pieces } from '../../stores/pieces.ts';
import { JobFrame } from '../../job/job-frame.tsx';
import { RisenPrices } from './risen-prices.tsx';
import { useCover } from './use-cover.ts';
import { useParts } from '../../job/use-parts.ts';
import { useQuotes } from './use-quotes.ts';

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
      {parts ? <RisenSinceYes parts={parts} /> : null}
      {parts ? <Lines parts={parts} /> : null}
    </>
  );
}

function RisenSinceYes({ parts }: { readonly parts: Parts }): ReactElement | null {
  const { job } = useHere();
  const { data: session } = useSession();
  const { data: quotes = [] } = useQuotes(job.id);
  const [last] = quotes;
  const risen = last && session ? risenSince(last, parts, session.shop.marginShare) : [];
  if (risen.length === 0) return null;
  return (
    <RisenPrices risen={risen}>
      <Link to={`/jobs/${job.id}/quote`}>To the quote</Link>
    </RisenPrices>
  );
}

function Lines({ parts }: { readonly parts: Parts }): ReactElement {
  const { job, sheet, state, keep } = useHere();
  const { busy, error, send } = useSend();
  // A part taken out is in hand for the job; what has no part, a fluid, only moves.
  const takeOut = (line: PartLine): (() => Promise<unknown>) | undefined => {
    const shelf = [line.shelf, ...line.others].find((one) => one && one.reservedHere > 0);
    const inHand = shelf ? sharedInHand(sheet, state.live, line.need.parts, shelf.reservedHere) : [];
    if (!shelf || inHand.length === 0) return move(line, 'issue');
    const drafts = inHand.map((one) => ({
      kind: 'replacement-here' as const,
      payload: { ...one, seen: outOfWords(shelf), item: shelf.id },
    }));
    return () => Promise.resolve(keep(...drafts));
  };
  const move = (line: PartLine, kind: 'reserve' | 'issue'): (() => Promise<unknown>) | undefined => {
    const found = movable(line, kind);
    if (!found) return undefined;
    const body = moveOf(kind, found.quantity, job.id);
    return () => ask(ENDPOINTS.stock.move, { id: found.shelf.id, body });
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
      <Table>
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
              onTake={takeOut(line)}
              run={run}
            />
          ))}
        </tbody>
      </Table>
      <KitsHere parts={parts} busy={busy || state.handedOver !== undefined} run={run} />
      <Wrong error={error} />
      {here.length > 0 && !state.handedOver ? (
        <Button variant="primary" className="mt-2" disabled={busy} onClick={() => run(...here.map((line) => move(line, 'reserve')))}>
          Keep all that is on the shelf
        </Button>
      ) : null}
      {state.handedOver ? null : <OrderTheRest parts={parts} isNext={here.length === 0} />}
    </>
  );
}

interface KitsHereProps {
  readonly parts: Parts;
  readonly busy: boolean;
  readonly run: (work: () => Promise<unknown>) => void;
}

/** Kits that are kept for the job: their pieces go out with the kit. */
function KitsHere({ parts: { kits, lines, view }, busy, run }: KitsHereProps): ReactElement | null {
  const { job } = useHere();
  const here = kits.flatMap((kit) => {
    const line = view.stock.find(({ number, reservedHere }) => number === kit.number && reservedHere > 0);
    return line ? [{ kit, line }] : [];
  });
  if (here.length === 0) return null;
  return (
    <ul className="list-unstyled">
      {here.map(({ kit, line }) => (
        <li key={line.id} className="d-flex flex-wrap gap-2 align-items-baseline">
          <span>
            Kit{' '}
            <Link to={`/stores/${line.id}`} className="fig">
              {line.number}
            </Link>{' '}
            is kept: {kit.brings.map(({ need }) => lines[need]?.need.name).join(', ')}
          </span>
          <Button
            variant="plain"
            disabled={busy}
            onClick={() => run(() => ask(ENDPOINTS.stock.move, { id: line.id, body: moveOf('issue', line.reservedHere, job.id) }))}
          >
            Take out the kit<span className="visually-hidden"> {line.number}</span>
          </Button>
        </li>
      ))}
    </ul>
  );
}

interface PartRowProps {
  readonly line: PartLine;
  readonly busy: boolean;
  readonly onKeep: (() => Promise<unknown>) | undefined;
  readonly onTake: (() => Promise<unknown>) | undefined;
  readonly run: (work: () => Promise<unknown>) => void;
}

function PartRow({ line, busy, onKeep, onTake, run }: PartRowProps): ReactElement {
  const { need, shelf, others, kept, out, here, ordered, due, open } = line;
  const { sheet, state, keep } = useHere();
  const [asking, setAsking] = useState(false);
  const came = state.handedOver ? [] : sharedInHand(sheet, state.live, need.parts, open);
  const lacking = lackingOf(line);
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
            {pieces(freeOf(shelf), shelf)} free{shelf.location ? `, ${shelf.location}` : ''}
          </Link>
        ) : (
          <span className="soft">no line</span>
        )}
        {others
          .filter((one) => freeOf(one) > 0 || one.reservedHere > 0)
          .map((one) => (
            <div key={one.id}>
              <Link to={`/stores/${one.id}`} className="fig">
                {one.number}
              </Link>{' '}
              fits: {pieces(freeOf(one), one)} free
            </div>
          ))}
      </td>
      <td>
        {[
          kept > 0 ? `${pieces(kept, need)} kept` : '',
          out > 0 ? `${pieces(out, need)} out` : '',
          here > out ? `${pieces(here - out, need)} from elsewhere` : '',
          ordered > 0 ? `${ordered} on order${due === null ? '' : `, due ${dayWords(due)}`}` : '',
        ]
          .filter(Boolean)
          .join(', ')}
        {open > lacking && !state.handedOver ? <div className="soft">{pieces(open - lacking, need)} to keep</div> : null}
        {lacking > 0 && !state.handedOver ? <div className="v-out">{pieces(lacking, need)} missing</div> : null}
        {open > 0 && state.handedOver && need.unit === 'piece' ? <div className="soft">where from was not said</div> : null}
      </td>
      <td>
        <div className="d-flex flex-wrap gap-1 justify-content-end">
          {onKeep ? (
            <Button variant="plain" disabled={busy} onClick={() => run(onKeep)}>
              Keep<span className="visually-hidden"> {need.name}</span>
            </Button>
          ) : null}
          {onTake ? (
            <Button variant="plain" disabled={busy} onClick={() => run(onTake)}>
              Take out<span className="visually-hidden"> {need.name}</span>
            </Button>
          ) : null}
          {came.length > 0 ? (
            <Button variant="quiet" disabled={busy} onClick={() => setAsking(true)}>
              It has come<span className="visually-hidden">: {need.name}</span>
            </Button>
          ) : null}
        </div>
        {asking ? (
          <AskFrom
            what={`${pieces(open, need)} × ${need.name}`}
            onFrom={(from) => keep(...came.map((one) => ({ kind: 'replacement-here' as const, payload: { ...one, seen: from } })))}
            onClose={() => setAsking(false)}
          />
        ) : null}
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
  // A cover of a moment ago may still name what is not open any more.
  const bought = (cover?.buy ?? []).flatMap(({ id, times }) => {
    const buy = offers.find((one) => one.id === id);
    return buy ? [{ buy, times }] : [];
  });
  const put = (): void =>
    void send(async () => {
      const lines = bought.map(({ buy: { id, supplier, number, pieces: together }, times }): WantedLine => {
        const key = `${id}×${times}`;
        if (!ids.has(key)) ids.set(key, uuid());
        return { id: ids.get(key)!, supplier, number, quantity: times * together, jobId: job.id };
      });
      await ask(ENDPOINTS.orders.want, { body: { lines } });
      ids.clear();
    }).finally(() => void refreshStores());
  const singles = singlesMinor(needs, offers);
  return (
    <section className="mt-4" aria-label="To order">
      <h2>To order</h2>
      {cover === undefined ? <Loading what="the cheapest way" /> : null}
      {cover && bought.length > 0 ? (
        <>
          <Table>
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
              {bought.map(({ buy, times }) => {
                const offer = parts.view.offers.find(({ number, supplier }) => number === buy.number && supplier === buy.supplier);
                const kit = parts.kits.find(({ number }) => number === buy.number);
                return (
                  <tr key={buy.id}>
                    <td className="fig fs-5">{times * buy.pieces}</td>
                    <td>
                      {offer?.name}
                      {kit ? (
                        <div className="soft">kit: {kit.brings.map(({ need }) => parts.lines[need]?.need.name).join(', ')}</div>
                      ) : null}
                    </td>
                    <td className="fig">{buy.number}</td>
                    <td>{offer?.supplier}</td>
                    <td className="fig">{offer ? `${offer.leadDays} to ${offer.leadDays + offer.leadSpread} d` : ''}</td>
                    <td className="fig">
                      {money(buy.eachMinor)}
                      {offer && buy.eachMinor < offer.priceMinor ? (
                        <div className="soft">
                          instead of {money(offer.priceMinor)}, from {buy.pieces} on
                        </div>
                      ) : null}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </Table>
          <p>
            <span className="fig fs-4">{money(cover.price)}</span>{' '}
            <span className="soft">
              {singles > cover.price ? `${money(singles - cover.price)} less than piece by piece.` : 'No kit is cheaper than the pieces.'}
              {cover.exact ? '' : ' The search was given up: there may be a cheaper way.'}
            </span>
          </p>
          <Wrong error={error} />
          <Button variant={isNext ? 'primary' : 'plain'} disabled={busy} onClick={put}>
            Put it on the orders
          </Button>{' '}
          <Link to="/stores/orders">Orders and goods in</Link>
        </>
      ) : null}
      {missing.length > 0 ? (
        <>
          <p className="soft mt-2 mb-1">
            In no catalogue: ask by telephone, or look on the old part for another number. What is ordered by hand is in the catalogue from
            then on.
          </p>
          <ul className="list-unstyled">
            {missing.map(({ need, open }) => (
              <li key={need.parts.join() + need.name} className="mb-2">
                {pieces(open, need)} × {need.name}{' '}
                {need.unit === 'piece' ? <OrderIt number={need.number} name={need.name} pieces={open} jobId={job.id} /> : null}
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </section>
  );
}
