import { FAMILIES, type Difference } from '@jubb/sheet';
import type { CustomerLine, CustomerView, IdentitySheet, ProposalView, RevisionLine, UnitHistory } from '@jubb/wire';
import { useQuery, type UseQueryResult } from '@tanstack/react-query';
import { useMemo } from 'react';
import { get } from '../link/client.ts';
import { useSheets } from '../link/queries.ts';

/** What only the pages of sheets and book-in ask for. */

/** Revisions that hold the words in their steps and cautions; nothing is asked for a letter or two. */
export const useSheetsHolding = (text: string): UseQueryResult<string[]> =>
  useQuery({
    queryKey: ['sheets', 'find', text],
    enabled: text.trim().length > 2,
    queryFn: () => get<string[]>(`/sheets/find?text=${encodeURIComponent(text)}`),
    placeholderData: (before) => before,
  });

/** Kinds of unit: the known ones, then the shop's own. */
export function useFamilies(): readonly string[] {
  const { data: sheets } = useSheets();
  return useMemo(() => [...new Set([...FAMILIES, ...(sheets ?? []).map(({ family }) => family).toSorted()])], [sheets]);
}

export const useRevisions = (id: string): UseQueryResult<RevisionLine[]> =>
  useQuery({ queryKey: ['sheets', id, 'revisions'], queryFn: () => get<RevisionLine[]>(`/sheets/${id}/revisions`) });

export const useProposals = (id: string): UseQueryResult<ProposalView[]> =>
  useQuery({ queryKey: ['sheets', id, 'proposals'], queryFn: () => get<ProposalView[]>(`/sheets/${id}/proposals`) });

export const useDifferences = (id: string, against: string): UseQueryResult<Difference[]> =>
  useQuery({ queryKey: ['sheets', id, 'differences', against], queryFn: () => get<Difference[]>(`/sheets/${id}/differences/${against}`) });

export const useIdentities = (family: string): UseQueryResult<IdentitySheet[]> =>
  useQuery({
    queryKey: ['sheets', 'identities', family],
    enabled: family !== '',
    queryFn: () => get<IdentitySheet[]>(`/sheets/identities?family=${encodeURIComponent(family)}`),
  });

export const useUnitHistory = (unitId: string | undefined): UseQueryResult<UnitHistory> =>
  useQuery({
    queryKey: ['unit', unitId, 'history'],
    enabled: unitId !== undefined,
    queryFn: () => get<UnitHistory>(`/units/${unitId ?? ''}/history`),
  });

/** Customers by a piece of a name or a serial; those that were here lately for nothing. */
export const useCustomers = (find: string): UseQueryResult<CustomerLine[]> =>
  useQuery({
    queryKey: ['customers', 'find', find],
    queryFn: () => get<CustomerLine[]>(`/customers?find=${encodeURIComponent(find)}`),
    placeholderData: (before) => before,
  });

export const useCustomer = (id: string | undefined): UseQueryResult<CustomerView> =>
  useQuery({ queryKey: ['customers', id], enabled: id !== undefined, queryFn: () => get<CustomerView>(`/customers/${id ?? ''}`) });
