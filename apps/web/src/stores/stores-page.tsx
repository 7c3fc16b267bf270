import { useMemo, useState, type ReactElement } from 'react';
import { Link, useNavigate } from 'react-router';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import Button from 'react-bootstrap/Button';
import type { StockLine } from '@jubb/book';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { useMoney } from '../kit/money.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { pieces } from './pieces.ts';
import { useStock } from './queries.ts';

const free = ({ onHand, reserved }: StockLine): number => onHand - reserved;

const columnsIn = (money: (minor: number) => string): readonly Column<StockLine>[] => [
  {
    id: 'number',
    head: 'Number',
    cellClass: 'fig fs-5',
    value: ({ number }) => number,
    cell: ({ id, number }) => <Link to={`/stores/${id}`}>{number}</Link>,
  },
  {
    id: 'name',
    head: 'What',
    value: ({ name, size, designation }) => [name, size, designation].filter(Boolean).join(', '),
    cell: ({ name, size, designation }) => (
      <>
        {name} <span className="soft">{[size, designation].filter(Boolean).join(', ')}</span>
      </>
    ),
  },
  { id: 'location', head: 'Shelf', cellClass: 'fig', value: ({ location }) => location },
  { id: 'on-hand', head: 'There', cellClass: 'fig', value: ({ onHand }) => onHand, cell: (line) => pieces(line.onHand, line) },
  {
    id: 'reserved',
    head: 'Kept for jobs',
    cellClass: 'fig',
    value: ({ reserved }) => reserved,
    cell: (line) => (line.reserved > 0 ? pieces(line.reserved, line) : ''),
  },
  {
    id: 'free',
    head: 'Free',
    cellClass: 'fig',
    value: free,
    cell: (line) => (
      <>
        {pieces(free(line), line)} {free(line) < line.minimum ? <span className="v-out">under {pieces(line.minimum, line)}</span> : null}
      </>
    ),
  },
  {
    id: 'price',
    head: 'Sold at',
    cellClass: 'fig',
    value: ({ priceMinor }) => priceMinor / 100,
    cell: ({ priceMinor }) => (priceMinor === 0 ? <span className="soft">not known</span> : money(priceMinor)),
  },
];

/** Everything on the shelves; a scanner types the number and Enter opens its line. */
export function StoresPage(): ReactElement {
  const [find, setFind] = useState('');
  const [isShort, setShort] = useState(false);
  const { data, error, hasNextPage, fetchNextPage, isFetchingNextPage, isPlaceholderData } = useStock(find.trim(), isShort);
  const go = useNavigate();
  const money = useMoney();
  const columns = useMemo(() => columnsIn(money), [money]);
  const lines = useMemo(() => data?.pages.flat(), [data]);
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
            <Link to="/stores/orders">Orders and goods in</Link> · <Link to="/stores/suppliers">Suppliers</Link> ·{' '}
            <Link to="/stores/messages">Messages sent</Link>
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
          <FormLabel htmlFor="find-stock">Number, name, size, designation, shelf; or scan a label</FormLabel>
          <FormControl
            id="find-stock"
            type="search"
            maxLength={100}
            autoComplete="off"
            value={find}
            onChange={(event) => setFind(event.target.value)}
          />
        </form>
        <Button variant="plain" className={isShort ? 'on' : ''} aria-pressed={isShort} onClick={() => setShort(!isShort)}>
          Below the minimum
        </Button>
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
      {lines && lines.length > 0 ? <DataTable name="stores" columns={columns} rows={lines} rowKey={({ id }) => id} /> : null}
      {hasNextPage ? (
        <Button variant="plain" className="mt-3" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
          Show more
        </Button>
      ) : null}
    </>
  );
}
