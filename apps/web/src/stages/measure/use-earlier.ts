import { readingFigure } from '@jubb/book';
import type { Limit } from '@jubb/sheet';
import { ENDPOINTS } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { ask } from '../../link/client.ts';
import { isTrial } from '../../job/trial-id.ts';
import { jobKey } from '../../link/queries.ts';

interface Earlier {
  readonly jobNumber: number;
  readonly at: string;
  readonly figure: number;
}

/** What earlier rebuilds of this unit found at a limit, the newest first. */
export function useEarlier(jobId: string, limit: Limit | undefined): readonly Earlier[] {
  const { data = [] } = useQuery({
    enabled: !isTrial(jobId),
    queryKey: [...jobKey(jobId), 'earlier'],
    staleTime: 600_000,
    queryFn: () => ask(ENDPOINTS.jobs.earlier, { id: jobId }),
  });
  return data.flatMap(({ jobNumber, at, ...found }) =>
    limit && found.limit === limit.ref ? [{ jobNumber, at, figure: readingFigure(limit, found) }] : [],
  );
}
