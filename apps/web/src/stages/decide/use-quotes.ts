import { ENDPOINTS } from '@jubb/wire';
import type { QuoteView } from '@jubb/book';
import { useQuery, type UseQueryResult } from '@tanstack/react-query';
import { ask } from '../../link/client.ts';
import { jobKey } from '../../link/queries.ts';

/** The quotes of a job, the newest first. */
export const useQuotes = (jobId: string): UseQueryResult<QuoteView[]> =>
  useQuery({ queryKey: [...jobKey(jobId), 'quotes'], queryFn: () => ask(ENDPOINTS.quotes.ofJob, { id: jobId }) });
