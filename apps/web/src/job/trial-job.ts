import { jobState, type AnyKeptEntry, type JobView } from '@jubb/book';
import type { SheetFile, Stage, Tool } from '@jubb/sheet';
import { useMemo, useState } from 'react';
import { useSession } from '../link/queries.ts';
import type { Draft } from '../link/store.ts';
import { trialId } from './trial-id.ts';
import { asHeld, pendingEntry, type JobHere } from './use-job.ts';

interface TrialJobOptions {
  readonly stage: Stage;
  readonly tools: readonly Tool[];
  /** What is pressed stands in the book of the trial, until the page is left. */
  readonly keeps?: boolean;
}

/** A job that is nowhere but on this page: to show a step of a sheet, or to try the bench. */
export function useTrialJob(given: SheetFile, { stage, tools, keeps = false }: TrialJobOptions): JobHere | undefined {
  const { data: session } = useSession();
  const [entries, setEntries] = useState<readonly AnyKeptEntry[]>([]);
  // Whoever tries it alone has nobody beside them who could look.
  const file = useMemo(() => (keeps ? withoutHolds(given) : given), [given, keeps]);
  return useMemo((): JobHere | undefined => {
    if (!session) return undefined;
    const { person } = session;
    const job = trialJob(file, stage, tools, entries, person);
    const state = jobState(file, entries);
    const keep = (...drafts: readonly Draft[]): void => {
      const made = drafts.map((draft, index) => {
        const held = { ...asHeld(draft, index, job.id, person.id), id: `${job.id}-${entries.length + index}` };
        return pendingEntry(held, job, state.sheet, index);
      });
      setEntries([...entries, ...made]);
    };
    return {
      job,
      sheet: state.sheet,
      state: { ...state, stage },
      person,
      refused: [],
      tool: (id) => tools.find((tool) => tool.id === id),
      personName: () => person.name,
      keep: keeps ? keep : () => undefined,
      keepAs: () => undefined,
    };
  }, [session, file, stage, tools, entries, keeps]);
}

function withoutHolds(file: SheetFile): SheetFile {
  return { ...file, steps: file.steps.map(({ holdPoint: _, ...step }) => step) };
}

function trialJob(
  file: SheetFile,
  stage: Stage,
  tools: readonly Tool[],
  entries: readonly AnyKeptEntry[],
  person: JobView['people'][number],
): JobView {
  const nothing = { id: '', name: '', serial: '' };
  return {
    id: trialId(file.key),
    number: 0,
    stage,
    complaint: '',
    promise: '',
    estimateMinor: 0,
    hold: null,
    version: 0,
    bookedAt: '',
    closedAt: null,
    scope: null,
    unit: nothing,
    machine: nothing,
    customer: { id: '', name: '', phone: null },
    sheet: { revisionId: '', revision: 0, status: 'draft', file, notOpened: [], newer: null },
    owed: [],
    asLeft: null,
    entries: [...entries],
    people: [person],
    tools: [...tools],
  };
}
