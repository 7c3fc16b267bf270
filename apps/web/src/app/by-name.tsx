import { ENDPOINTS } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import type { ReactElement } from 'react';
import { Navigate, Outlet, useLocation, useParams } from 'react-router';
import { ask } from '../link/client.ts';
import { useSheets, useTools } from '../link/queries.ts';
import { Loading, Wrong } from '../kit/pieces.tsx';

const ID = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/u;

/** Jobs, sheets and tools open by what people call them: /jobs/402, /sheets/<its name in files>, /crib/tools/M3, /bench/402. */
export function ByName(): ReactElement {
  const { id = '' } = useParams();
  const { pathname } = useLocation();
  if (ID.test(id)) return <Outlet />;
  if (pathname.startsWith('/sheets/')) return <SheetCalled name={id} />;
  return pathname.startsWith('/crib/') ? <ToolCalled name={id} /> : <JobNumbered name={id} />;
}

interface CalledProps {
  readonly name: string;
}

function JobNumbered({ name }: CalledProps): ReactElement {
  const number = /^\d{1,9}$/u.test(name) ? Number(name) : undefined;
  const { data, error } = useQuery({
    queryKey: ['jobs', 'numbered', number],
    enabled: number !== undefined,
    queryFn: async () => (await ask(ENDPOINTS.jobs.list, { find: number ?? '' })).find((job) => job.number === number) ?? null,
  });
  return <Opens what="job" name={name} id={number === undefined ? null : data && data.id} error={error} />;
}

function SheetCalled({ name }: CalledProps): ReactElement {
  const { data: sheets, error } = useSheets();
  const called = sheets?.filter(({ key }) => key === name);
  const found = called?.find(({ status }) => status === 'approved') ?? called?.[0];
  return <Opens what="sheet" name={name} id={sheets && (found?.revisionId ?? null)} error={error} />;
}

function ToolCalled({ name }: CalledProps): ReactElement {
  const { data: tools, error } = useTools();
  const found = tools?.find(({ tag }) => tag.toLowerCase() === name.toLowerCase());
  return <Opens what="tool" name={name} id={tools && (found?.id ?? null)} error={error} />;
}

interface OpensProps {
  readonly what: string;
  readonly name: string;
  /** Nothing while it is looked for; null when there is none. */
  readonly id: string | null | undefined;
  readonly error: unknown;
}

function Opens({ what, name, id, error }: OpensProps): ReactElement {
  const { pathname, search } = useLocation();
  if (error) return <Wrong error={error} />;
  if (id === undefined) return <Loading what={`the ${what}`} />;
  if (id === null)
    return (
      <p>
        There is no {what} called “{name}”.
      </p>
    );
  return <Navigate replace to={pathname.replace(`/${encodeURIComponent(name)}`, `/${id}`) + search} />;
}
