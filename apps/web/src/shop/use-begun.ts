import { ENDPOINTS, type BeginView } from '@jubb/wire';
import { useQuery, type UseQueryResult } from '@tanstack/react-query';
import { ask } from '../link/client.ts';
import { useSession } from '../link/queries.ts';

/** How far the shop is with what a first job takes; a foreman's, and asked anew whenever it is looked at. */
export function useBegun(): UseQueryResult<BeginView> {
  const { data: session } = useSession();
  const enabled = session?.person.role === 'foreman';
  return useQuery({ queryKey: ['begin'], queryFn: () => ask(ENDPOINTS.firstRun.view), enabled, staleTime: 0 });
}
