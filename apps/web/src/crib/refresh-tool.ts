import { refresh } from '../link/queries.ts';

/** What a page shows of the crib is asked for again. */
export async function refreshTool(): Promise<void> {
  await refresh({ queryKey: ['stores', 'tool'] });
  await refresh({ queryKey: ['tools'] });
}
