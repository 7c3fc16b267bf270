import type { Tool } from '@jubb/sheet';
import { formatQuantity } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { ENDPOINTS, type MadeTool } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { Lacking } from './lacking.tsx';
import { Picture } from '../capture/picture.tsx';
import { ask } from '../link/client.ts';
import { useSession, useTools } from '../link/queries.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { dayWords, shopToday } from '../kit/days.ts';

const isRanged = ({ low, high }: Tool): boolean => high > low;
const figureOf = (tool: Tool, size: number): string => formatQuantity(size, tool.quantity, tool.unit);
const ranged = (id: string, head: string, of: (tool: Tool) => number, words = figureOf): Column<Tool> => ({
  id,
  head,
  cellClass: 'fig',
  value: (tool) => (isRanged(tool) ? of(tool) : ''),
  cell: (tool) => (isRanged(tool) ? words(tool, of(tool)) : ''),
});

const COLUMNS: readonly Column<Tool>[] = [
  {
    id: 'tag',
    head: 'Tag',
    cellClass: 'fig fs-5',
    value: ({ tag }) => tag,
    cell: ({ id, tag }) => <Link to={`/crib/tools/${id}`}>{tag}</Link>,
  },
  { id: 'name', head: 'Tool', value: ({ name }) => name },
  ranged('low', 'From', ({ low }) => low),
  ranged('high', 'To', ({ high }) => high),
  ranged('resolution', 'Reads to', ({ resolution }) => resolution),
  ranged(
    'u',
    'Uncertainty u',
    ({ u }) => u,
    (tool, u) => (tool.quantity === 'length' ? formatQuantity(u, 'length', 'µm') : figureOf(tool, u)),
  ),
  {
    id: 'length',
    head: 'Length',
    cellClass: 'fig',
    value: ({ length }) => length ?? '',
    cell: ({ length }) => (length === null ? '' : formatQuantity(length, 'length')),
  },
  {
    id: 'due',
    head: 'Check due',
    value: ({ calibrationDue, retired }) => (retired ? 'out of use' : (calibrationDue ?? 'not needed')),
    cell: ({ calibrationDue, retired }) =>
      retired ? (
        `out of use since ${dayWords(retired)}`
      ) : calibrationDue === null ? (
        'not needed'
      ) : (
        <>
          {dayWords(calibrationDue)} {calibrationDue < shopToday() ? <span className="tag-box v-out">out</span> : null}
        </>
      ),
  },
];

export function Crib(): ReactElement {
  const { data: tools, error } = useTools();
  const { data: session } = useSession();
  const isForeman = session?.person.role === 'foreman';
  const [showsAll, setShowsAll] = useState(false);
  if (!tools) return error ? <Wrong error={error} /> : <Loading what="the crib" />;
  const inUse = tools.filter(({ retired }) => !retired);
  return (
    <>
      <Title
        sub={
          <>
            Ranges, and how far each can be trusted. What is past its check is not offered at the bench.{' '}
            <Link to="/crib/instruments">Instruments that send by themselves</Link>
          </>
        }
      >
        Crib
      </Title>
      {isForeman ? (
        <p>
          <Link className="btn btn-plain" to="/crib/new">
            A new tool
          </Link>{' '}
          <Link className="btn btn-plain" to="/shop/bring?list=tools">
            Bring in a list
          </Link>
        </p>
      ) : null}
      {tools.length === 0 ? (
        <p className="soft">Nothing is in the crib yet{isForeman ? '' : ': the foreman puts tools in'}.</p>
      ) : (
        <>
          <DataTable name="crib" columns={COLUMNS} rows={showsAll ? tools : inUse} rowKey={({ id }) => id} />
          {inUse.length < tools.length ? (
            <Button variant="quiet" className="mt-2" onClick={() => setShowsAll(!showsAll)}>
              {showsAll ? 'Without those that are out of use' : `${tools.length - inUse.length} out of use`}
            </Button>
          ) : null}
        </>
      )}
      {isForeman ? <Lacking /> : null}
      <MadeHere />
    </>
  );
}

const MADE: readonly Column<MadeTool>[] = [
  {
    id: 'name',
    head: 'Tool',
    value: ({ tool }) => tool.name,
    cell: ({ tool, made }) => (
      <>
        <b>{tool.name}</b>
        <div className="soft">{tool.use}</div>
        {made.pictures.map(({ file, width, height, words }) => (
          <Picture key={file} file={file} words={words ?? tool.name} width={width} height={height} />
        ))}
      </>
    ),
  },
  { id: 'sizes', head: 'Sizes', value: ({ tool }) => tool.sizes ?? '' },
  { id: 'load', head: 'Held', cellClass: 'fig', value: ({ tool }) => (tool.load === undefined ? '' : `${tool.load} kN`) },
  { id: 'for', head: 'Made for', value: ({ model, step }) => [model, step].filter(Boolean).join(': ') },
  {
    id: 'served',
    head: 'Used again',
    cellClass: 'fig',
    value: ({ made }) => (made.failed > 0 ? `${made.served}, and not ${made.failed}` : String(made.served)),
  },
  {
    id: 'job',
    head: 'Job',
    cellClass: 'fig',
    value: ({ jobNumber }) => jobNumber,
    cell: ({ jobId, jobNumber }) => <Link to={`/jobs/${jobId}`}>{jobNumber}</Link>,
  },
  { id: 'by', head: 'By', value: ({ person, at }) => `${person}, ${dayWords(at)}` },
];

/** Tools that were made on jobs, with where they worked; each is offered at its step of the next job of the model. */
function MadeHere(): ReactElement | null {
  const { data = [], error } = useQuery({ queryKey: ['tools', 'made'], queryFn: () => ask(ENDPOINTS.tools.made) });
  if (error) return <Wrong error={error} />;
  if (data.length === 0) return null;
  return (
    <section className="mt-4">
      <h2>Made in this shop</h2>
      <DataTable name="made-tools" columns={MADE} rows={data} rowKey={({ id }) => id} />
    </section>
  );
}
