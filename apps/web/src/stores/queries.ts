import type { ShimLine, StockLine } from '@jubb/book';
import type { MessageView, OrderView, StockView, SupplierView } from '@jubb/wire';
import { useInfiniteQuery, useQuery, type InfiniteData, type UseInfiniteQueryResult, type UseQueryResult } from '@tanstack/react-query';
import { get } from '../link/client.ts';
import { refresh } from '../link/queries.ts';

const LINES_A_PAGE = 50;

export const useStock = (find: string, isShort: boolean): UseInfiniteQueryResult<InfiniteData<StockLine[]>> =>
  useInfiniteQuery({
    queryKey: ['stores', 'list', find, isShort],
    initialPageParam: '',
    queryFn: ({ pageParam }) => get<StockLine[]>(`/stock?find=${encodeURIComponent(find)}${isShort ? '&short=yes' : ''}${pageParam}`),
    getNextPageParam: (page: StockLine[]) =>
      page.length < LINES_A_PAGE ? undefined : `&after=${encodeURIComponent(page.at(-1)?.number ?? '')}`,
    placeholderData: (before: InfiniteData<StockLine[], string> | undefined) => before,
  });

/** A few lines of the shelves by a piece of a number or a name; nothing is asked for a letter. */
export const useStockFound = (find: string): UseQueryResult<StockLine[]> =>
  useQuery({
    queryKey: ['stores', 'found', find],
    enabled: find.length > 1,
    queryFn: () => get<StockLine[]>(`/stock?find=${encodeURIComponent(find)}`),
  });

export const useShims = (): UseQueryResult<ShimLine[]> =>
  useQuery({ queryKey: ['stores', 'shims'], queryFn: () => get<ShimLine[]>('/stock/shims') });

export const useStockLine = (id: string): UseQueryResult<StockView> =>
  useQuery({ queryKey: ['stores', 'line', id], queryFn: () => get<StockView>(`/stock/${id}`) });

export const useOrders = (): UseQueryResult<OrderView[]> =>
  useQuery({ queryKey: ['stores', 'orders'], queryFn: () => get<OrderView[]>('/orders') });

export const useSuppliers = (): UseQueryResult<SupplierView[]> =>
  useQuery({ queryKey: ['stores', 'suppliers'], queryFn: () => get<SupplierView[]>('/suppliers') });

export const useMessages = (): UseQueryResult<MessageView[]> =>
  useQuery({ queryKey: ['stores', 'messages'], queryFn: () => get<MessageView[]>('/messages') });

export const refreshStores = (): Promise<void> => refresh({ queryKey: ['stores'] });
