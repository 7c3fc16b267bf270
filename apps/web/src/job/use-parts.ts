import { ENDPOINTS } from '@jubb/wire';
import { kitsFor, needsOf, partLines, piecesHere, type JobPartsView, type Parts } from '@jubb/book';
import { useQuery } from '@tanstack/react-query';
import { ask } from '../link/client.ts';
import { isTrial } from './trial-id.ts';
import { useHere } from './use-job.ts';

/** What the job needs, held against shelves, catalogues and orders. */
export function useParts(): {
  readonly parts: Parts | undefined;
  readonly error: unknown;
  /** The shelves are being asked; with no link nobody asks them. */
  readonly isLooking: boolean;
} {
  const { job, state } = useHere();
  const needs = needsOf(state);
  const kits = kitsFor(state.sheet, needs);
  const numbers = [...new Set([...needs.flatMap(({ number }) => number ?? []), ...kits.flatMap(({ number }) => number ?? [])])];
  const designations = [...new Set(needs.flatMap(({ designation }) => designation ?? []))];
  const {
    data: view,
    error,
    fetchStatus,
  } = useQuery({
    enabled: !isTrial(job.id),
    queryKey: ['stores', 'job', job.id, numbers, designations],
    queryFn: () => ask(ENDPOINTS.stock.forJob, { id: job.id, numbers: numbers.join('\n'), designations: designations.join('\n') }),
    placeholderData: (before: JobPartsView | undefined) => before,
  });
  if (!view) return { parts: undefined, error, isLooking: fetchStatus === 'fetching' };
  return {
    parts: { lines: partLines(needs, kits, view, (part) => piecesHere(state.sheet, part, state.live)), kits, view },
    error,
    isLooking: false,
  };
}
