import {
  jobState,
  kindOf,
  shaped,
  waitsBegun,
  workingFor,
  type AnyKeptEntry,
  type JobState,
  type JobView,
  type PersonView,
} from '@jubb/book';
import { cautionsAt, type SheetFile, type Step, type Tool } from '@jubb/sheet';
import { createContext, useContext, useMemo } from 'react';
import { jobKey, queryClient, useJobView, useSession } from '../link/queries.ts';
import { useHeld } from '../link/live.ts';
import { outbox } from '../link/outbox.ts';
import type { Draft, Held } from '../link/store.ts';

export interface JobHere {
  readonly job: JobView;
  readonly sheet: SheetFile;
  readonly state: JobState;
  readonly person: PersonView;
  readonly refused: readonly Held[];
  tool(id: string | null | undefined): Tool | undefined;
  personName(id: string): string;
  /** Keeps entries: on the screen and on this device at once, at the server when the link allows. */
  keep(...drafts: readonly Draft[]): void;
  /** The same of somebody who stands beside: sent once they proved who they are. */
  keepAs(personId: string, ...drafts: readonly Draft[]): void;
}

const JobContext = createContext<JobHere | undefined>(undefined);
export const JobProvider = JobContext.Provider;

export function useHere(): JobHere {
  const here = useContext(JobContext);
  if (!here) throw new Error('used outside a job');
  return here;
}

/** A job as this device knows it: what the server keeps, and after it what is still held here. */
export function useJob(id: string): { readonly here: JobHere | undefined; readonly error: unknown } {
  const { data, error } = useJobView(id);
  const { data: session } = useSession();
  const held = useHeld();
  // The outbox lets go of an entry a moment before the query tells that the server has it: what
  // the cache holds by then is taken, or the entry would vanish in between.
  const job = queryClient.getQueryData<JobView>(jobKey(id)) ?? data;
  const here = useMemo((): JobHere | undefined => {
    if (!job || !session) return undefined;
    const mine = held.filter((one) => one.jobId === id);
    const sheet = sheetOf(job, mine);
    const known = new Set(job.entries.map((entry) => entry.id));
    const pending = mine.filter((one) => !one.refused && !known.has(one.id)).map((one, index) => pendingEntry(one, job, sheet, index));
    const entries = [...job.entries, ...pending];
    const state = jobState(job.sheet.file, entries, session.shop.rules);
    return {
      job: { ...job, entries, hold: holdOf(job, state) },
      sheet: state.sheet,
      state,
      person: session.person,
      refused: mine.filter((one) => one.refused),
      tool: (toolId) => job.tools.find((tool) => tool.id === toolId),
      personName: (personId) => job.people.find((person) => person.id === personId)?.name ?? '',
      keepAs: (personId, ...drafts) => void outbox.add(id, drafts.map(inVersion), personId),
      keep: (...drafts) => {
        const begun = waitsBegun(state, () => {
          const made = drafts.map((draft, index) =>
            pendingEntry(asHeld(draft, index, id, session.person.id), job, sheet, pending.length + index),
          );
          return jobState(job.sheet.file, [...entries, ...made], session.shop.rules);
        });
        void outbox.add(id, [...drafts, ...begun].map(inVersion));
      },
    };
  }, [job, session, held, id]);
  return { here, error };
}

/** A draft as it will be held, to see what it makes of the job. */
export function asHeld(draft: Draft, index: number, jobId: string, personId: string): Held {
  return { ...draft, id: `draft-${index}`, jobId, personId, takenAt: new Date().toISOString() };
}

/** What it is on hold for, as the entries have it that are held here too. */
function holdOf({ hold }: JobView, { live }: JobState): JobView['hold'] {
  const last = live.findLast(({ kind }) => kind === 'hold' || kind === 'hold-off');
  if (last?.kind === 'hold') return { ...last.payload, since: last.takenAt };
  return last ? null : hold;
}

/** The sheet as the job goes by it, by what is still held here too. */
function sheetOf(job: JobView, mine: readonly Held[]): SheetFile {
  const entries = [...job.entries, ...mine] as readonly Pick<AnyKeptEntry, 'id' | 'kind' | 'payload' | 'strikes'>[];
  const struck = new Set(entries.flatMap(({ strikes }) => strikes ?? []));
  return shaped(job.sheet.file, entries.filter(({ id }) => !struck.has(id)) as unknown as readonly AnyKeptEntry[]);
}

/** What is held here, as the book will have it. */
export function pendingEntry(held: Held, job: JobView, sheet: SheetFile, index: number): AnyKeptEntry {
  const tool = job.tools.find((candidate) => candidate.id === held.toolId);
  return {
    id: held.id,
    jobId: held.jobId,
    seq: job.entries.length + index + 1,
    kind: held.kind,
    payload: held.payload,
    step: held.step ?? null,
    toolId: held.toolId ?? null,
    strikes: held.strikes ?? null,
    personId: held.personId,
    takenAt: held.takenAt,
    keptAt: held.takenAt,
    working: workingFor(held.kind, held.payload, sheet, tool),
    prevHash: '',
    hash: '',
  } as AnyKeptEntry;
}

/** Cautions of a step that the person at work has not yet read on this job. */
export function unread(here: JobHere, step: Step): readonly { readonly ref: string; readonly text: string; readonly wear?: string }[] {
  return cautionsAt(here.sheet, step).filter(
    ({ ref }) => !here.state.cautionsRead.some((entry) => entry.payload.caution === ref && entry.personId === here.person.id),
  );
}

/** A draft with the version of its kind that this page knows: an entry that waits long may be sent to a newer server. */
function inVersion(draft: Draft): Draft {
  const { version } = kindOf(draft.kind);
  return version === 1 ? draft : { ...draft, version };
}
