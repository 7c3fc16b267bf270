import { daysOn, scopeSheet, type SheetFile, type Stage, type Tool } from '@jubb/sheet';
import { workerData } from 'node:worker_threads';
import type { NewEntry } from '@jubb/book';
import { contentWith } from '../entries/entry-content.js';
import { canonicalOf, chainHash, hashOf } from '../entries/entry-hash.js';
import { unitOf } from './demo-unit.js';
import type { PlannedJob } from './demo-plan.js';
import { workAt, type Crew, type TimedEntry } from './demo-work.js';
import { ShopHours } from './shop-hours.js';

/** What every thread knows of the shop. */
export interface ShopKnown {
  readonly sheets: Readonly<Record<string, SheetFile>>;
  /** Those that were in force before, of the sheets that changed. */
  readonly earlySheets: Readonly<Record<string, SheetFile>>;
  readonly tools: readonly Tool[];
  /** Stock lines by number. */
  readonly shelf: Readonly<Record<string, string>>;
  readonly zone: string;
  readonly now: number;
}

export interface WorkTask {
  readonly job: PlannedJob;
  readonly id: string;
  readonly sheet: string;
  readonly crew: Crew;
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

/** A job as it is kept: its entries as the JSON of their rows, and what its head says. */
export interface WorkedJob {
  readonly id: string;
  readonly rows: readonly string[];
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

const given = workerData as { readonly known: string } | null;
const known = given && (JSON.parse(given.known) as ShopKnown);
const scoped = new Map<string, SheetFile>();
let hours: ShopHours | undefined;

export default function workAll(tasks: readonly WorkTask[]): readonly WorkedJob[] {
  return tasks.map((task) => workedJob(task, known!));
}

/** Works one job, puts it on its days, and chains it as the book would. */
export function workedJob({ job, id, sheet: key, crew }: WorkTask, shop: ShopKnown): WorkedJob {
  const sheet = sheetOf(key, job, shop);
  const entries = workAt(sheet, { ...job, unit: unitOf(sheet, job, shop.shelf), crew }, shop.tools);
  hours ??= new ShopHours(shop.zone, shop.now, YEARS_DAYS + 90);
  const times = timesOf(entries, job, hours, shop.now);
  let hash = '';
  const rows = entries.map((entry, index) => {
    const takenAt = new Date(times[index]!).toISOString();
    const content = contentWith(
      { ...asNew(entry, times[index]!, shop.zone), takenAt },
      { jobId: id, personId: entry.person.id, working: entry.working },
    );
    const text = canonicalOf(content);
    const made = { seq: index + 1, keptAt: keptAt(times[index]!), contentHash: hashOf(text), prevHash: hash };
    hash = chainHash(hash, made.seq, made.contentHash);
    // One object out of the two, without writing the long one twice.
    return `${text.slice(0, -1)},${JSON.stringify({ ...made, hash }).slice(1)}`;
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
    takings: entries.flatMap(({ kind, id: entryId, payload, person }, index) => {
      const { item, count = 1 } = payload as { item?: string; count?: number };
      if (kind !== 'replacement-here' || item === undefined) return [];
      return [{ entryId, item, count, jobId: id, personId: person.id, takenAt: new Date(times[index]!).toISOString() }];
    }),
  };
}

function askedAt(entries: readonly TimedEntry[], times: readonly number[]): Pick<WorkedJob, 'asked'> {
  const at = entries.findIndex(({ kind, payload }) => kind === 'hold' && (payload as { reason: string }).reason === 'answer');
  const till = entries.findIndex(({ kind }, index) => index > at && kind === 'hold-off');
  if (at < 0 || till < 0) return {};
  return { asked: { at: new Date(times[at]!).toISOString(), answeredAt: new Date(times[till]!).toISOString() } };
}

function keptAt(taken: number): string {
  return new Date(taken + ON_THE_WAY).toISOString();
}

function sheetOf(key: string, { isEarly, scope }: PlannedJob, { sheets, earlySheets }: ShopKnown): SheetFile {
  const of = JSON.stringify([key, isEarly, scope.variant, scope.tasks, scope.sides, scope.place]);
  const found = scoped.get(of) ?? scopeSheet((isEarly ? earlySheets[key] : undefined) ?? sheets[key]!, scope).file;
  scoped.set(of, found);
  return found;
}

/** As a tablet would send it at an instant. */
function asNew(
  { id, kind, payload: given, step, toolId, strikes, dueIn }: TimedEntry,
  at: number,
  zone: string,
): Omit<NewEntry, 'takenAt'> {
  const payload = dueIn === undefined ? given : { ...given, due: daysOn(zone, at, dueIn) };
  return { id, kind, payload, ...(step ? { step } : {}), ...(toolId ? { toolId } : {}), ...(strikes === null ? {} : { strikes }) };
}

/** When each entry was made: on from the day of a finished job, back from the last one of an open job. */
function timesOf(entries: readonly TimedEntry[], job: PlannedJob, shop: ShopHours, now: number): readonly number[] {
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
function readyFor(entries: readonly TimedEntry[], index: number, outside: 1 | -1): number {
  const of = (at: number): string | undefined => (entries[at]?.isReady ? (entries[at].step ?? undefined) : undefined);
  const step = of(index);
  if (step === undefined || of(index + outside) === step) return 0;
  let minutes = 0;
  for (let at = index; of(at) === step; at -= outside) minutes += entries[at]!.minutes + entries[at]!.waits;
  return minutes;
}
