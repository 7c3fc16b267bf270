import { ENDPOINTS, type TabletLine } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { clockWords, dayWords } from '../kit/days.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useSend } from '../kit/use-send.ts';
import { ask } from '../link/client.ts';
import { queryClient, refresh, useSession } from '../link/queries.ts';
import { ShopPlaces } from './shop-places.tsx';

const KEY = ['tablets'] as const;

const take = (lines: readonly TabletLine[]): void => {
  queryClient.setQueryData(KEY, lines);
  void refresh({ queryKey: ['people'] });
};

/** Every tablet and screen of the shop, and who is in there: logged out from here, and forgotten when it is lost. */
export function TabletsPage(): ReactElement {
  const { data: session } = useSession();
  const isForeman = session?.person.role === 'foreman';
  const { data: tablets, error } = useQuery({ queryKey: KEY, queryFn: () => ask(ENDPOINTS.tablet.list), enabled: isForeman });
  const { busy, error: refused, send } = useSend();
  const [asked, setAsked] = useState<string>();
  if (session && !isForeman)
    return (
      <>
        <Title sub="The foreman sees to it.">Tablets and log-ins</Title>
        <ShopPlaces />
      </>
    );
  if (!tablets) return error ? <Wrong error={error} /> : <Loading what="the tablets" />;
  const end = (mark: string): void => void send(async () => take(await ask(ENDPOINTS.tablet.endLogIn, { id: mark })));
  const forget = (id: string): void => {
    setAsked(undefined);
    void send(async () => take(await ask(ENDPOINTS.tablet.forget, { id })));
  };
  const columns: readonly Column<TabletLine>[] = [
    {
      id: 'name',
      head: 'Tablet',
      value: ({ name }) => name,
      cell: ({ name, logIns }) => (
        <>
          <b>{name}</b>
          {logIns.some(({ isThis }) => isThis) ? <span className="soft"> this one</span> : null}
        </>
      ),
    },
    {
      id: 'in',
      head: 'Logged in',
      value: ({ logIns }) => logIns.map(({ person }) => person).join(', '),
      cell: ({ logIns }) =>
        logIns.length === 0 ? (
          <span className="soft">nobody</span>
        ) : (
          <ul className="list-unstyled mb-0">
            {logIns.map(({ mark, person, beside, since, until, isThis }) => (
              <li key={mark} className="d-flex flex-wrap gap-2 align-items-center mb-1">
                <span>
                  {person}
                  {beside.length > 0 ? ` (and ${beside.join(', ')} by PIN)` : ''}
                  <span className="soft">
                    {' '}
                    {dayWords(since)} {clockWords(since)}, until {clockWords(until)}
                  </span>
                </span>
                {isThis ? null : (
                  <Button variant="quiet" disabled={busy} onClick={() => end(mark)}>
                    Log out<span className="visually-hidden"> {person}</span>
                  </Button>
                )}
              </li>
            ))}
          </ul>
        ),
    },
    { id: 'people', head: 'Their PIN will do here', value: ({ people }) => people.join(', ') },
    { id: 'instruments', head: 'Instruments', value: ({ instruments }) => instruments.join(', ') },
    {
      id: 'added',
      head: 'First used',
      value: ({ addedAt }) => addedAt,
      cell: ({ addedAt, addedBy }) => `${dayWords(addedAt)}, ${addedBy}`,
    },
    {
      id: 'forget',
      head: 'Lost or sold',
      value: () => '',
      cell: ({ id, name, logIns }) =>
        asked === id ? (
          <span className="d-flex flex-wrap gap-2">
            <Button variant="primary" disabled={busy} onClick={() => forget(id)}>
              Forget {name}
            </Button>
            <Button variant="quiet" onClick={() => setAsked(undefined)}>
              Leave it
            </Button>
          </span>
        ) : logIns.some(({ isThis }) => isThis) ? null : (
          <Button variant="plain" disabled={busy} onClick={() => setAsked(id)}>
            Forget it<span className="visually-hidden"> {name}</span>
          </Button>
        ),
    },
  ];
  return (
    <>
      <Title sub="Whoever is logged out here is out at once. On a forgotten tablet no PIN will do until somebody logs in there with a password.">
        Tablets and log-ins
      </Title>
      <ShopPlaces />
      <Wrong error={refused} />
      <DataTable name="tablets" columns={columns} rows={tablets} rowKey={({ id }) => id} isBare />
    </>
  );
}
