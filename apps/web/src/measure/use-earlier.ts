import type { EarlierReading } from '@jubb/contract/job';
import { useQuery } from '@tanstack/react-query';
import { get } from '../api/client.ts';
import { jobKey } from '../api/queries.ts';

/** What earlier rebuilds of this unit found at a limit, the newest first. */
export function useEarlier(jobId: string, limit?: string): readonly EarlierReading[] {
  const { data = [] } = useQuery({
    queryKey: [...jobKey(jobId), 'earlier'],
    staleTime: 600_000,
    queryFn: () => get<EarlierReading[]>(`/jobs/${jobId}/earlier`),
  });
  return limit === undefined ? data : data.filter((one) => one.limit === limit);
}
