import type { SealLine, ShimLine, StockLine } from '@jubb/book';
import { ENDPOINTS, type MessageView, type OrderView, type StockView, type SupplierView } from '@jubb/wire';
import { useInfiniteQuery, useQuery, type InfiniteData, type UseInfiniteQueryResult, type UseQueryResult } from '@tanstack/react-query';
import { ask } from '../link/client.ts';
import { refresh } from '../link/queries.ts';

const LINES_A_PAGE = 50;

export const useStock = (find: string, isShort: boolean): UseInfiniteQueryResult<InfiniteData<StockLine[]>> =>
  useInfiniteQuery({
    queryKey: ['stores', 'list', find, isShort],
    initialPageParam: undefined,
    queryFn: ({ pageParam: after }: { readonly pageParam: string | undefined }) =>
      ask(ENDPOINTS.stock.list, { find, after, short: isShort ? 'yes' : undefined }),
    getNextPageParam: (page: StockLine[]) => (page.length < LINES_A_PAGE ? undefined : page.at(-1)?.number),
    placeholderData: (before: InfiniteData<StockLine[], string | undefined> | undefined) => before,
  });

/** A few lines of the shelves by a piece of a number or a name; nothing is asked for a letter. */
export const useStockFound = (find: string): UseQueryResult<StockLine[]> =>
  useQuery({
    queryKey: ['stores', 'found', find],
    enabled: find.length > 1,
    queryFn: () => ask(ENDPOINTS.stock.list, { find }),
  });

export const useShims = (): UseQueryResult<ShimLine[]> =>
  useQuery({ queryKey: ['stores', 'shims'], queryFn: () => ask(ENDPOINTS.stock.shims) });

/** Seals and rings that are free and in date; asked for where something looks through them. */
export const useSealLines = (enabled: boolean): UseQueryResult<SealLine[]> =>
  useQuery({ queryKey: ['stores', 'seals'], enabled, queryFn: () => ask(ENDPOINTS.stock.seals) });

export const useStockLine = (id: string): UseQueryResult<StockView> =>
  useQuery({ queryKey: ['stores', 'line', id], queryFn: () => ask(ENDPOINTS.stock.one, { id }) });

export const useOrders = (): UseQueryResult<OrderView[]> =>
  useQuery({ queryKey: ['stores', 'orders'], queryFn: () => ask(ENDPOINTS.orders.list) });

export const useSuppliers = (): UseQueryResult<SupplierView[]> =>
  useQuery({ queryKey: ['stores', 'suppliers'], queryFn: () => ask(ENDPOINTS.orders.suppliers) });

export const useMessages = (): UseQueryResult<MessageView[]> =>
  useQuery({ queryKey: ['stores', 'messages'], queryFn: () => ask(ENDPOINTS.quotes.messages) });

export const refreshStores = (): Promise<void> => refresh({ queryKey: ['stores'] });
