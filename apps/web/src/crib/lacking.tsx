import { ENDPOINTS, type LackingLine } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { Loading, Wrong } from '../kit/pieces.tsx';
import { ask } from '../link/client.ts';

const COLUMNS: readonly Column<LackingLine>[] = [
  { id: 'words', head: 'Lacking', value: ({ words }) => words, cell: ({ words }) => <b>{words}</b> },
  { id: 'for', head: 'For', value: ({ sheets }) => sheets.join(', ') },
];

/** Tools that the shop's sheets ask for and the crib has not; worked out when it is asked for. */
export function Lacking(): ReactElement {
  const [isAsked, setAsked] = useState(false);
  const { data, error, isFetching } = useQuery({
    queryKey: ['tools', 'lacking'],
    queryFn: () => ask(ENDPOINTS.firstRun.lacking),
    enabled: isAsked,
  });
  if (!isAsked)
    return (
      <p className="mt-3">
        <Button variant="plain" onClick={() => setAsked(true)}>
          What is lacking for our sheets?
        </Button>
      </p>
    );
  return (
    <section className="mt-4" aria-label="Lacking for our sheets">
      <h2>Lacking for our sheets</h2>
      <Wrong error={error} />
      {isFetching && !data ? <Loading what="what the sheets ask for" /> : null}
      {data?.length === 0 ? <p className="v-in">Nothing: the crib has every tool that the sheets ask for.</p> : null}
      {data && data.length > 0 ? (
        <>
          <p>
            {data.length} {data.length === 1 ? 'thing is' : 'things are'} lacking for what is on the sheets, drafts too.
          </p>
          <DataTable name="lacking" columns={COLUMNS} rows={data} rowKey={({ words }) => words} isBare />
        </>
      ) : null}
    </section>
  );
}
