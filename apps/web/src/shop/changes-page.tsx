import { ENDPOINTS, type ChangeLine } from '@jubb/wire';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState, type ReactElement } from 'react';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { LineField } from '../kit/line-field.tsx';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { clockWords, dayWords } from '../kit/days.ts';
import { ask } from '../link/client.ts';
import { useSession } from '../link/queries.ts';
import { ShopPlaces } from './shop-places.tsx';

const COLUMNS: readonly Column<ChangeLine>[] = [
  { id: 'at', head: 'When', value: ({ at }) => at, cell: ({ at }) => `${dayWords(at)}, ${clockWords(at)}` },
  { id: 'person', head: 'Who', value: ({ person }) => person },
  {
    id: 'what',
    head: 'What',
    value: ({ what, subject }) => `${what} ${subject}`,
    cell: ({ what, subject }) => (what === 'shop' ? 'the shop' : subject),
  },
  { id: 'act', head: 'Done', value: ({ act }) => act },
  {
    id: 'fields',
    head: 'Before and after',
    value: ({ fields }) => fields.map(({ field, before, after }) => `${field}: ${before} → ${after}`).join('; '),
    cell: ({ fields }) => (
      <ul className="list-unstyled mb-0">
        {fields.map(({ field, before, after }) => (
          <li key={field}>
            <span className="soft">{field}:</span> {before === '' ? '' : `${before} → `}
            <b>{after === '' ? 'nothing' : after}</b>
          </li>
        ))}
      </ul>
    ),
  },
];

/** Everything that was changed of the shop's own lists: who, when, before, after. */
export function ChangesPage(): ReactElement {
  const { data: session } = useSession();
  const [find, setFind] = useState('');
  const asked = useDeferredValue(find);
  const isForeman = session?.person.role === 'foreman';
  const { data, error } = useQuery({
    queryKey: ['changes', asked],
    queryFn: () => ask(ENDPOINTS.shop.changes, { find: asked }),
    placeholderData: keepPreviousData,
    enabled: isForeman,
  });
  return (
    <>
      <Title sub={isForeman || !session ? 'Who, when, before and after. Nothing here is ever taken out.' : 'The foreman sees to it.'}>
        What was changed
      </Title>
      <ShopPlaces />
      {isForeman ? <LineField label="Find in it" longest={100} text={find} onText={setFind} /> : null}
      {error ? <Wrong error={error} /> : null}
      {isForeman && !data && !error ? <Loading what="the changes" /> : null}
      {data?.length === 0 ? (
        <p className="soft mt-3">{find.trim() === '' ? 'Nothing was changed yet.' : 'Nothing with these words.'}</p>
      ) : null}
      {data && data.length > 0 ? <DataTable name="changes" columns={COLUMNS} rows={data} rowKey={({ id }) => id} /> : null}
    </>
  );
}
