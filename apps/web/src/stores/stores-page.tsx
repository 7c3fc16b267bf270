import { useState, type ReactElement } from 'react';
import { Link, useNavigate } from 'react-router';
import { useMoney } from '../kit/money.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { pieces } from './pieces.ts';
import { useStock } from './queries.ts';

/** Everything on the shelves; a scanner types the number and Enter opens its line. */
export function StoresPage(): ReactElement {
  const [find, setFind] = useState('');
  const [isShort, setShort] = useState(false);
  const { data, error, hasNextPage, fetchNextPage, isFetchingNextPage, isPlaceholderData } = useStock(find.trim(), isShort);
  const go = useNavigate();
  const money = useMoney();
  const lines = data?.pages.flat();
  const openFirst = (): void => {
    const exact = lines?.find(({ number }) => number.toLowerCase() === find.trim().toLowerCase());
    const one = exact ?? (lines?.length === 1 ? lines[0] : undefined);
    if (one && !isPlaceholderData) void go(`/stores/${one.id}`);
  };
  return (
    <>
      <Title
        sub={
          <>
            <Link to="/stores/orders">Orders and goods in</Link> · <Link to="/stores/messages">Messages sent</Link>
          </>
        }
      >
        Stores
      </Title>
      <div className="d-flex flex-wrap gap-3 align-items-end mb-3">
        <form
          className="flex-grow-1"
          style={{ maxWidth: 480 }}
          onSubmit={(event) => {
            event.preventDefault();
            openFirst();
          }}
        >
          <label className="form-label" htmlFor="find-stock">
            Number, name, size, designation, shelf; or scan a label
          </label>
          <input
            id="find-stock"
            className="form-control"
            type="search"
            maxLength={100}
            autoComplete="off"
            value={find}
            onChange={(event) => setFind(event.target.value)}
          />
        </form>
        <button type="button" className={`btn btn-plain ${isShort ? 'on' : ''}`} aria-pressed={isShort} onClick={() => setShort(!isShort)}>
          Below the minimum
        </button>
        <Link className="btn btn-plain" to="/stores/shims">
          Shims by thickness
        </Link>
        <Link className="btn btn-plain" to="/stores/new">
          A new line
        </Link>
      </div>
      <Wrong error={error} />
      {!lines && !error ? <Loading what="the shelves" /> : null}
      {lines?.length === 0 ? (
        <p>{find ? `Nothing on the shelves has "${find}" in it.` : 'Nothing is on the shelves yet. Make the first line.'}</p>
      ) : null}
      {lines && lines.length > 0 ? (
        <table className="table">
          <thead>
            <tr>
              <th scope="col">Number</th>
              <th scope="col">What</th>
              <th scope="col">Shelf</th>
              <th scope="col">There</th>
              <th scope="col">Kept for jobs</th>
              <th scope="col">Free</th>
              <th scope="col">Sold at</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => (
              <tr key={line.id}>
                <td className="fig fs-5">
                  <Link to={`/stores/${line.id}`}>{line.number}</Link>
                </td>
                <td>
                  {line.name} <span className="soft">{[line.size, line.designation].filter(Boolean).join(', ')}</span>
                </td>
                <td className="fig">{line.location}</td>
                <td className="fig">{pieces(line.onHand, line)}</td>
                <td className="fig">{line.reserved > 0 ? pieces(line.reserved, line) : ''}</td>
                <td className="fig">
                  {pieces(line.onHand - line.reserved, line)}{' '}
                  {line.onHand - line.reserved < line.minimum ? <span className="v-out">under {pieces(line.minimum, line)}</span> : null}
                </td>
                <td className="fig">{line.priceMinor === 0 ? <span className="soft">not known</span> : money(line.priceMinor)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {hasNextPage ? (
        <button type="button" className="btn btn-plain mt-3" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
          Show more
        </button>
      ) : null}
    </>
  );
}
