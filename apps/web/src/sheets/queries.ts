import { FAMILIES, type Difference } from '@jubb/sheet';
import {
  ENDPOINTS,
  type CustomerLine,
  type CustomerView,
  type IdentitySheet,
  type ProposalView,
  type RevisionLine,
  type UnitHistory,
} from '@jubb/wire';
import { useQuery, type UseQueryResult } from '@tanstack/react-query';
import { useMemo } from 'react';
import { ask } from '../link/client.ts';
import { useSheets } from '../link/queries.ts';

/** What only the pages of sheets and book-in ask for. */

/** Revisions that hold the words in their steps and cautions; nothing is asked for a letter or two. */
export const useSheetsHolding = (text: string): UseQueryResult<string[]> =>
  useQuery({
    queryKey: ['sheets', 'find', text],
    enabled: text.trim().length > 2,
    queryFn: () => ask(ENDPOINTS.sheets.find, { text }),
    placeholderData: (before) => before,
  });

/** Kinds of unit: the known ones, then the shop's own. */
export function useFamilies(): readonly string[] {
  const { data: sheets } = useSheets();
  return useMemo(() => [...new Set([...FAMILIES, ...(sheets ?? []).map(({ family }) => family).toSorted()])], [sheets]);
}

export const useRevisions = (id: string): UseQueryResult<RevisionLine[]> =>
  useQuery({ queryKey: ['sheets', id, 'revisions'], queryFn: () => ask(ENDPOINTS.sheets.revisions, { id }) });

export const useProposals = (id: string): UseQueryResult<ProposalView[]> =>
  useQuery({ queryKey: ['sheets', id, 'proposals'], queryFn: () => ask(ENDPOINTS.sheets.proposed, { id }) });

export const useDifferences = (id: string, against: string): UseQueryResult<Difference[]> =>
  useQuery({ queryKey: ['sheets', id, 'differences', against], queryFn: () => ask(ENDPOINTS.sheets.differences, { id, against }) });

export const useIdentities = (family: string): UseQueryResult<IdentitySheet[]> =>
  useQuery({
    queryKey: ['sheets', 'identities', family],
    enabled: family !== '',
    queryFn: () => ask(ENDPOINTS.sheets.identities, { family }),
  });

export const useUnitHistory = (unitId: string | undefined): UseQueryResult<UnitHistory> =>
  useQuery({
    queryKey: ['unit', unitId, 'history'],
    enabled: unitId !== undefined,
    queryFn: () => ask(ENDPOINTS.units.history, { id: unitId ?? '' }),
  });

/** Customers by a piece of a name or a serial; those that were here lately for nothing. */
export const useCustomers = (find: string): UseQueryResult<CustomerLine[]> =>
  useQuery({
    queryKey: ['customers', 'find', find],
    queryFn: () => ask(ENDPOINTS.customers.list, { find }),
    placeholderData: (before) => before,
  });

export const useCustomer = (id: string | undefined): UseQueryResult<CustomerView> =>
  useQuery({ queryKey: ['customers', id], enabled: id !== undefined, queryFn: () => ask(ENDPOINTS.customers.one, { id: id ?? '' }) });
