import {
  type AnyKeptEntry,
  type Bench,
  type JobHead,
  type JobView,
  type TodayTold,
  type TodayView,
  myToday,
  withTold,
  type MyToday,
  type CareView,
} from '@jubb/book';
import type { Tool } from '@jubb/sheet';
import {
  ENDPOINTS,
  type InstrumentView,
  type PersonLine,
  type SessionView,
  type SheetLine,
  type SheetView,
  type SightLine,
} from '@jubb/wire';
import type { WorkingDescription } from '@jubb/core';
import {
  QueryClient,
  useInfiniteQuery,
  useQuery,
  type InfiniteData,
  type QueryFilters,
  type UseInfiniteQueryResult,
  type UseQueryResult,
} from '@tanstack/react-query';
import { useCallback } from 'react';
import { keepShop } from '../kit/days.ts';
import { LinkDown, Refusal, ask, setToken } from './client.ts';

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 15_000,
      // A refusal does not get better by asking again; a lost link does.
      retry: (failures, error) => error instanceof LinkDown && failures < 2,
      networkMode: 'always',
    },
  },
});

/** Asks again for what may have changed. A first answer still under way may be from before the change. */
export async function refresh(which: QueryFilters): Promise<void> {
  const firsts = queryClient.getQueryCache().findAll({ ...which, fetchStatus: 'fetching' });
  await Promise.allSettled(firsts.flatMap(({ state, promise }) => (state.data === undefined && promise ? [promise] : [])));
  await queryClient.invalidateQueries(which);
}

/** Another person, or nobody, is at this device now: nothing of the one before stays on the screen. */
export function switchSession(session: SessionView | null): void {
  setToken(session?.csrf ?? '');
  if (session) keepShop(session.shop);
  queryClient.removeQueries({ predicate: (query) => query.queryKey[0] !== 'session' });
  queryClient.setQueryData(['session'], session);
  void forgetKept(session);
}

/** What is kept for a lost link is the person's before; whoever is here now can open the application without one, too. */
async function forgetKept(session: SessionView | null): Promise<void> {
  if (!('caches' in window)) return;
  await Promise.all(['jubb-read', 'jubb-files'].map((name) => caches.delete(name)));
  if (session) await ask(ENDPOINTS.session.current).catch(() => undefined);
}

/** Null when nobody is logged in. */
export function useSession(): UseQueryResult<SessionView | null> {
  return useQuery({
    queryKey: ['session'],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: async () => {
      try {
        const session = await ask(ENDPOINTS.session.current);
        setToken(session.csrf);
        keepShop(session.shop);
        return session;
      } catch (error) {
        if (error instanceof Refusal && error.problem.status === 401) return null;
        throw error;
      }
    },
  });
}

/** Whether nobody works here yet. */
export const useFirstRun = (): UseQueryResult<boolean> =>
  useQuery({ queryKey: ['first-run'], queryFn: async () => (await ask(ENDPOINTS.health.health)).firstRun === true });

/** Where to look first in the demo: it stays as it is. */
export const useSights = (): UseQueryResult<SightLine[]> =>
  useQuery({ queryKey: ['sights'], staleTime: Number.POSITIVE_INFINITY, queryFn: () => ask(ENDPOINTS.demo.sights) });

/** This tablet, and who may use a PIN here. */
export const tabletPeople = { queryKey: ['tablet'], queryFn: () => ask(ENDPOINTS.tablet.people) };

/** Backups, rehearsals and walks; a foreman’s. */
export const useCare = (): UseQueryResult<CareView[]> =>
  useQuery({ queryKey: ['care'], refetchInterval: 3_600_000, queryFn: () => ask(ENDPOINTS.shop.care) });

/** Who works here, and who did; a foreman’s. */
export function usePeople(): UseQueryResult<PersonLine[]> {
  const { data: session } = useSession();
  const enabled = session?.person.role === 'foreman';
  return useQuery({ queryKey: ['people'], queryFn: () => ask(ENDPOINTS.people.list), enabled });
}

/** Today as whoever is logged in sees it; changes are told, and put into it. */
export function useToday(): UseQueryResult<MyToday> {
  const { data: session } = useSession();
  const me = session?.person.id ?? '';
  const { data: benches } = useBenches();
  const select = useCallback((view: TodayView) => myToday(view, me, Date.now(), benches), [me, benches]);
  return useQuery({ queryKey: ['today'], queryFn: () => ask(ENDPOINTS.today.view), select });
}

/** Jobs that changed, as they are now. An answer that is under way may be from before. */
export function todayTold(told: TodayTold): void {
  if (queryClient.isFetching({ queryKey: ['today'] }) > 0) void refresh({ queryKey: ['today'] });
  queryClient.setQueryData<TodayView>(['today'], (view) => view && withTold(view, told));
}

/** Entries of a job that this page does not have yet, and only those: where more than its entries changed, that is told beside them. */
export async function entriesTold(jobId: string, seq: number): Promise<void> {
  const known = queryClient.getQueryData<JobView>(jobKey(jobId))?.entries;
  // A first answer that is under way may be from before.
  if (!known && queryClient.isFetching({ queryKey: jobKey(jobId) }) > 0) return refresh({ queryKey: jobKey(jobId) });
  if (!known || known.length >= seq) return;
  const from = firstMissing(known);
  try {
    const more = await ask(ENDPOINTS.jobs.after, { id: jobId, after: from });
    queryClient.setQueryData<JobView>(jobKey(jobId), (view) => view && { ...view, entries: mergeEntries(more, view.entries) });
    return;
  } catch {
    // Asked for as a whole, it tells by itself what is wrong.
  }
  await refresh({ queryKey: jobKey(jobId) });
}

/** The number up to which nothing is missing: a page may have its own entry before another's that was kept first. */
function firstMissing(entries: readonly AnyKeptEntry[]): number {
  const gap = entries.findIndex(({ seq }, index) => seq !== index + 1);
  return gap === -1 ? entries.length : gap;
}

export const jobKey = (id: string): readonly string[] => ['job', id];

export const useJobView = (id: string): UseQueryResult<JobView> =>
  useQuery({
    queryKey: jobKey(id),
    queryFn: () => ask(ENDPOINTS.jobs.view, { id }),
    structuralSharing: (before, now) => withKnownEntries(before as JobView | undefined, now as JobView),
  });

/**
 * Entries are never taken back, so one that is known here stays: an answer that was under way while
 * an entry was kept does not have it yet, and would make it vanish for a moment.
 */
function withKnownEntries(before: JobView | undefined, now: JobView): JobView {
  return before ? { ...now, entries: mergeEntries(now.entries, before.entries) } : now;
}

/** Both, each id once, in the order of their number. */
export function mergeEntries(some: readonly AnyKeptEntry[], others: readonly AnyKeptEntry[]): readonly AnyKeptEntry[] {
  const known = new Set(some.map((entry) => entry.id));
  const more = others.filter((entry) => !known.has(entry.id));
  return more.length === 0 ? some : [...some, ...more].toSorted((a, b) => a.seq - b.seq);
}

export const useJobs = (find: string): UseQueryResult<JobHead[]> =>
  useQuery({
    queryKey: ['jobs', find],
    queryFn: () => ask(ENDPOINTS.jobs.list, { find }),
    placeholderData: (before) => before,
  });

const JOBS_A_PAGE = 50;

/** All jobs that fit, newest first, a page at a time. */
export const useJobPages = (find: string): UseInfiniteQueryResult<InfiniteData<JobHead[]>> =>
  useInfiniteQuery({
    queryKey: ['jobs', 'pages', find],
    initialPageParam: undefined,
    queryFn: ({ pageParam: before }: { readonly pageParam: number | undefined }) => ask(ENDPOINTS.jobs.list, { find, before }),
    getNextPageParam: (page: JobHead[]) => (page.length < JOBS_A_PAGE ? undefined : page.at(-1)?.number),
    placeholderData: (before: InfiniteData<JobHead[], number | undefined> | undefined) => before,
  });

export const useSheets = (): UseQueryResult<SheetLine[]> => useQuery({ queryKey: ['sheets'], queryFn: () => ask(ENDPOINTS.sheets.list) });

export const useSheet = (id: string): UseQueryResult<SheetView> =>
  useQuery({ queryKey: ['sheets', id], queryFn: () => ask(ENDPOINTS.sheets.one, { id }) });

export const useTools = (): UseQueryResult<Tool[]> => useQuery({ queryKey: ['tools'], queryFn: () => ask(ENDPOINTS.tools.list) });

/** Benches and the machines that steps need, with what stands there. */
export const useBenches = (): UseQueryResult<Bench[]> => useQuery({ queryKey: ['benches'], queryFn: () => ask(ENDPOINTS.benches.list) });

export const useInstruments = (): UseQueryResult<InstrumentView[]> =>
  useQuery({ queryKey: ['instruments'], queryFn: () => ask(ENDPOINTS.instruments.list) });

export const useWorkings = (): UseQueryResult<WorkingDescription[]> =>
  useQuery({ queryKey: ['workings'], staleTime: Number.POSITIVE_INFINITY, queryFn: () => ask(ENDPOINTS.workings.list) });
