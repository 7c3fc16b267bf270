import type { NewEntry } from '@jubb/book';
import type { Stage } from '@jubb/sheet';
import { daysOn } from '@jubb/sheet/days';
import { workerData } from 'node:worker_threads';
import { canonicalOf, chainHash, contentWith, hashOf, type EntryContent } from '../entries/entry-hash.js';
import type { PlannedJob } from './demo-plan.js';
import type { PlayedEntry, PlayedJob } from './demo-played.js';
import { ShopHours } from './shop-hours.js';

/** What every thread knows of the shop: ids by log-in, tag and number. */
export interface ShopKnown {
  readonly people: Readonly<Record<string, string>>;
  readonly tools: Readonly<Record<string, string>>;
  readonly shelf: Readonly<Record<string, string>>;
  readonly zone: string;
  readonly now: number;
}

export interface DatedTask {
  /** As they are planned. */
  readonly job: { readonly at: PlannedJob['at'] | undefined; readonly endedAgo: PlannedJob['endedAgo'] | undefined };
  readonly id: string;
  /** A `PlayedJob` as JSON. */
  readonly played: string;
}

/** A piece that came off the shelf by an entry. */
export interface Taking {
  readonly entryId: string;
  readonly item: string;
  readonly count: number;
  readonly jobId: string;
  readonly personId: string;
  readonly takenAt: string;
}

/** An entry as it is kept, chained to the one before it. */
export interface DatedEntry extends EntryContent {
  readonly seq: number;
  readonly keptAt: string;
  readonly contentHash: string;
  readonly prevHash: string;
  readonly hash: string;
}

/** A job as it is kept: its entries, and what its head says. */
export interface WorkedJob {
  readonly id: string;
  readonly rows: readonly DatedEntry[];
  readonly stage: Stage;
  readonly lastSeq: number;
  readonly lastHash: string;
  readonly bookedAt: string;
  readonly closedAt: string | null;
  readonly endedAt: string;
  /** When the customer was asked, and when they answered, where they were. */
  readonly asked?: { readonly at: string; readonly answeredAt: string };
  readonly takings: readonly Taking[];
}

const DAY = 24 * 3600 * 1000;
const YEARS_DAYS = 730;
/** A job is booked in so long before its first entry, and kept so long after it was made, ms. */
const BEFORE_FIRST = 20 * 60_000;
const ON_THE_WAY = 300;
/** Nothing that is finished ends later than so long ago. */
const LAST_END = 2 * 3600 * 1000;

const given = workerData as { readonly known: ShopKnown } | null;
let hours: ShopHours | undefined;

/** What is known of jobs, and all their entries as `COPY_ENTRIES` takes them. */
export interface DatedBatch {
  readonly jobs: readonly Omit<WorkedJob, 'rows'>[];
  readonly text: string;
}

export default function dateAll(tasks: readonly DatedTask[]): DatedBatch {
  const dated = tasks.map((task) => datedJob(task, given!.known));
  return {
    jobs: dated.map(({ rows: _rows, ...rest }) => rest),
    text: dated.flatMap(({ rows }) => rows.map(copyLine)).join(''),
  };
}

const ESCAPES: Readonly<Record<string, string>> = { '\\': '\\\\', '\n': '\\n', '\r': '\\r', '\t': '\\t' };

/** A row in the text form of COPY (PostgreSQL, "COPY", Text Format), in the order of its columns. */
function copyLine(row: DatedEntry): string {
  const {
    id,
    jobId,
    seq,
    kind,
    version = 1,
    payload,
    working,
    step,
    toolId,
    strikes,
    personId,
    takenAt,
    keptAt: kept,
    contentHash,
    prevHash,
    hash,
  } = row;
  const json = (value: object | null): string | null => value && JSON.stringify(value);
  const cells = [
    id,
    jobId,
    seq,
    kind,
    version,
    json(payload),
    json(working),
    step,
    toolId,
    strikes,
    personId,
    takenAt,
    kept,
    contentHash,
    prevHash,
    hash,
  ];
  const text = cells.map((cell) => (cell === null ? '\\N' : String(cell).replaceAll(/[\\\n\r\t]/gu, (one) => ESCAPES[one]!)));
  return `${text.join('\t')}\n`;
}

/** Puts a job that was played on its days, by those who are here and with what lies here, and chains it as the book would. */
export function datedJob({ job, id, played }: DatedTask, shop: ShopKnown): WorkedJob {
  const { entries, workings } = JSON.parse(played) as PlayedJob;
  hours ??= new ShopHours(shop.zone, shop.now, YEARS_DAYS + 90);
  const times = timesOf(entries, job, hours, shop.now);
  const takings: Taking[] = [];
  let hash = '';
  const rows = entries.map((entry, index): DatedEntry => {
    const takenAt = new Date(times[index]!).toISOString();
    const personId = shop.people[entry.by]!;
    const made = asMade(entry, times[index]!, shop);
    const working = entry.working === null ? null : workings[entry.working]!;
    const content = contentWith({ ...made, takenAt }, { jobId: id, personId, working, version: entry.version });
    const taken = takenBy(made);
    if (taken) takings.push({ entryId: entry.id, ...taken, jobId: id, personId, takenAt });
    const links = { seq: index + 1, keptAt: keptAt(times[index]!), contentHash: hashOf(canonicalOf(content)), prevHash: hash };
    hash = chainHash(hash, links.seq, links.contentHash);
    return { ...content, ...links, hash };
  });
  const last = entries.at(-1);
  const stage = entries.findLast(({ kind }) => kind === 'stage')?.payload as { stage: Stage } | undefined;
  const first = times[0] ?? hours.on(shop.now, -(job.endedAgo ?? 0));
  return {
    id,
    rows,
    stage: stage?.stage ?? 'book-in',
    lastSeq: rows.length,
    lastHash: hash,
    bookedAt: new Date(first - BEFORE_FIRST).toISOString(),
    closedAt: last?.kind === 'handed-over' ? keptAt(times.at(-1)!) : null,
    endedAt: new Date(times.at(-1) ?? first).toISOString(),
    ...askedAt(entries, times),
    takings,
  };
}

/** What comes off a shelf by an entry. */
function takenBy({ kind, payload }: Pick<NewEntry, 'kind' | 'payload'>): Pick<Taking, 'item' | 'count'> | undefined {
  const { item, count = 1 } = payload as { item?: string; count?: number };
  return kind === 'replacement-here' && item !== undefined ? { item, count } : undefined;
}

function askedAt(entries: readonly PlayedEntry[], times: readonly number[]): Pick<WorkedJob, 'asked'> {
  const at = entries.findIndex(({ kind, payload }) => kind === 'hold' && (payload as { reason: string }).reason === 'answer');
  const till = entries.findIndex(({ kind }, index) => index > at && kind === 'hold-off');
  if (at < 0 || till < 0) return {};
  return { asked: { at: new Date(times[at]!).toISOString(), answeredAt: new Date(times[till]!).toISOString() } };
}

function keptAt(taken: number): string {
  return new Date(taken + ON_THE_WAY).toISOString();
}

/** As a tablet of this shop would send it at an instant. */
function asMade(
  { id, kind, payload, step, toolId, strikes, dueIn }: PlayedEntry,
  at: number,
  { tools, shelf, zone }: ShopKnown,
): Omit<NewEntry, 'takenAt'> {
  const { item } = payload as { item?: string };
  const here = {
    ...payload,
    ...(kind === 'replacement-here' && item !== undefined ? { item: shelf[item] } : {}),
    ...(dueIn === undefined ? {} : { due: daysOn(zone, at, dueIn) }),
  };
  return {
    id,
    kind,
    payload: here,
    ...(step ? { step } : {}),
    ...(toolId ? { toolId: tools[toolId]! } : {}),
    ...(strikes === null ? {} : { strikes }),
  };
}

/** When each entry was made: on from the day of a finished job, back from the last one of an open job. */
function timesOf(entries: readonly PlayedEntry[], job: DatedTask['job'], shop: ShopHours, now: number): readonly number[] {
  const begun = now - (1 - (job.at ?? 0)) * YEARS_DAYS * DAY;
  if (job.at !== undefined) {
    const times: number[] = [];
    let at = shop.within(begun);
    for (const [index, { minutes, waits }] of entries.entries()) {
      at = shop.inOneDay(at, readyFor(entries, index, -1));
      at = shop.on(waits > 0 ? shop.within(at + waits * 60_000) : at, minutes);
      times.push(at);
    }
    if (at <= now - LAST_END) return times;
  }
  const times: number[] = [];
  let at = shop.within(shop.on(now, -(job.endedAgo ?? 300)), true);
  for (const [back, { minutes, waits }] of entries.toReversed().entries()) {
    at = shop.inOneDay(at, readyFor(entries, entries.length - 1 - back, 1), true);
    times.push(at);
    at = shop.on(at, -minutes);
    if (waits > 0) at = shop.within(at - waits * 60_000, true);
  }
  return times.toReversed();
}

/** Minutes of work and waiting at what was made ready, where an entry is the one that it begins with, or, the other way, ends with; else none. */
function readyFor(entries: readonly PlayedEntry[], index: number, outside: 1 | -1): number {
  const of = (at: number): string | undefined => (entries[at]?.isReady ? (entries[at].step ?? undefined) : undefined);
  const step = of(index);
  if (step === undefined || of(index + outside) === step) return 0;
  let minutes = 0;
  for (let at = index; of(at) === step; at -= outside) minutes += entries[at]!.minutes + entries[at]!.waits;
  return minutes;
}
