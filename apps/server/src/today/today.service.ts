import {
  canDo,
  heldBy,
  jobState,
  stageProgress,
  toSettle,
  type AnyKeptEntry,
  type JobState,
  type PersonView,
  type TodayClock,
  type TodayLine,
  type TodayView,
} from '@jubb/book';
import { ROLES, outOfUse, type Role, type Tool } from '@jubb/sheet';
import { setImmediate as letOthers } from 'node:timers/promises';
import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { Subject } from 'rxjs';
import { DataSource } from 'typeorm';
import { shopDay } from '../common/shop-day.js';
import { ask } from '../database/data-source.js';
import { entriesByJob } from '../entries/by-job.js';
import { NoticesService } from '../notices/notices.service.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { StreamService } from '../stream/stream.service.js';
import { JobsService, type HeadRow } from '../jobs/jobs.service.js';
import { ALL, ENTRIES, FULL, SOME } from './today.sql.js';

/** What an open job is known by: with another one of these its line is another one. */
interface OpenRow {
  readonly id: string;
  readonly key: string;
}
type FullRow = HeadRow & { readonly lastSeq: number; readonly key: string };

/** A job as its entries have it, until its key moves. */
interface Read {
  readonly key: string;
  /** Its line for each role, and the clocks that run on it, as JSON. */
  readonly lines: Readonly<Record<Role, string>>;
  readonly clocks: readonly string[];
  /** When a clock that runs on it ends, ms; it is read anew then. */
  readonly until: number;
}

/** So many jobs are read at a time, and others come in between after so long, ms. */
const JOBS_AT_ONCE = 20;
const SLICE_MS = 8;
/** Pages are told at most so often, ms; and telling them takes at most this share of a processor. */
const TELL_MS = 1000;
const TELL_SHARE = 0.2;

/** Every open job with its next act. Each is worked out when its number moves, and once for everybody. */
@Injectable()
export class TodayService implements OnApplicationBootstrap, OnApplicationShutdown {
  /** What changed, for the pages of each role, as JSON. */
  readonly told = new Subject<Readonly<Record<Role, string>>>();
  readonly #log = new Logger('today');
  readonly #read = new Map<string, Read>();
  #mark = '';
  readonly #changed = new Set<string>();
  /** One reads at a time: what another waits for is mostly read then. */
  #turn: Promise<unknown> = Promise.resolve();
  #telling: NodeJS.Timeout | undefined;

  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(NoticesService) private readonly notices: NoticesService,
    @Inject(StreamService) stream: StreamService,
  ) {
    stream.events.subscribe((event) => {
      if (event.type === 'entries' || event.type === 'job') this.#changed.add(event.jobId);
    });
    // Pages ask for everything anew on their next link.
    stream.missed.subscribe(() => this.#changed.clear());
  }

  /** `TodayView` as JSON, put together from the lines that are known. */
  async viewJson(person: PersonView): Promise<string> {
    const [open, around, owed, notices] = await Promise.all([
      ask<OpenRow>(this.dataSource.manager, ALL),
      this.#around(),
      this.jobs.owedSoon(),
      this.notices.of(person),
    ]);
    const read = await this.#readAll(open, around);
    const ids = new Set(open.map(({ id }) => id));
    for (const id of this.#read.keys()) if (!ids.has(id)) this.#read.delete(id);
    const { tools, today } = around;
    const rest: Omit<TodayView, 'lines' | 'clocks'> = {
      owed: owed.lines,
      owedMore: owed.more,
      crib: tools
        .filter((tool) => !tool.retired && tool.calibrationDue !== null && tool.calibrationDue < today)
        .map((tool) => ({ tag: tool.tag, name: tool.name, due: tool.calibrationDue ?? '' })),
      notices,
    };
    return `{${listsOf(read, person.role)},${JSON.stringify(rest).slice(1)}`;
  }

  onApplicationBootstrap(): void {
    this.#tellAfter(TELL_MS);
  }

  onApplicationShutdown(): void {
    clearTimeout(this.#telling);
    this.told.complete();
  }

  #tellAfter(ms: number): void {
    this.#telling = setTimeout(() => void this.#tell(), ms).unref();
  }

  async #tell(): Promise<void> {
    const began = Date.now();
    try {
      for (const [id, { until }] of this.#read) if (until <= began) this.#changed.add(id);
      if (this.told.observed && this.#changed.size > 0) await this.#tellChanged();
      else if (!this.told.observed) this.#changed.clear();
    } catch (error) {
      // They stay to be told with the next.
      this.#log.warn(`what changed could not be told: ${error instanceof Error ? error.message : String(error)}`);
    }
    this.#tellAfter(Math.max(TELL_MS, (Date.now() - began) / TELL_SHARE));
  }

  async #tellChanged(): Promise<void> {
    const ids = [...this.#changed];
    const [open, around] = await Promise.all([ask<OpenRow>(this.dataSource.manager, SOME, ids), this.#around()]);
    for (const id of ids) this.#changed.delete(id);
    const read = await this.#readAll(open, around);
    const still = new Set(open.map(({ id }) => id));
    const gone = JSON.stringify(ids.filter((id) => !still.has(id)));
    // A `TodayTold`.
    const forRole = (role: Role): string => `{"type":"today",${listsOf(read, role)},"gone":${gone}}`;
    this.told.next(Object.fromEntries(ROLES.map((role) => [role, forRole(role)])) as Record<Role, string>);
  }

  async #around(): Promise<Around> {
    const [tools, people, { today }] = await Promise.all([this.jobs.tools(), this.jobs.people(), shopDay(this.dataSource)]);
    const inDate = tools.filter((tool) => outOfUse(tool, today) === undefined);
    const usable = [...new Set(inDate.map(({ kind }) => kind))].toSorted().join();
    return { tools, today, names: new Map(people.map(({ id, name }) => [id, name])), mark: `${today}|${usable}` };
  }

  /** The jobs as they are now, in the order given. */
  #readAll(open: readonly OpenRow[], around: Around): Promise<readonly Read[]> {
    const turn = this.#turn.then(() => this.#inTurn(open, around));
    this.#turn = turn.catch(() => undefined);
    return turn;
  }

  async #inTurn(open: readonly OpenRow[], around: Around): Promise<readonly Read[]> {
    // The day, or what the crib has in date, changes all of them.
    if (this.#mark !== around.mark) this.#read.clear();
    this.#mark = around.mark;
    const now = Date.now();
    const read = new Map<string, Read>();
    const old: string[] = [];
    for (const { id, key } of open) {
      const known = this.#read.get(id);
      if (known && known.key === key && known.until > now) read.set(id, known);
      else old.push(id);
    }
    let since = performance.now();
    for (let at = 0; at < old.length; at += JOBS_AT_ONCE) {
      const some = old.slice(at, at + JOBS_AT_ONCE);
      const [heads, entries] = await Promise.all([
        ask<FullRow>(this.dataSource.manager, FULL, some),
        ask<AnyKeptEntry>(this.dataSource.manager, ENTRIES, some),
      ]);
      const byJob = entriesByJob(entries);
      for (const head of heads) {
        const { file } = await this.sheets.pinned(head.sheetRevisionId, head.scope);
        const one = readOf(head, jobState(file, byJob.get(head.id) ?? []), around);
        read.set(head.id, one);
        this.#read.set(head.id, one);
        if (performance.now() - since < SLICE_MS) continue;
        await letOthers();
        since = performance.now();
      }
    }
    // One that was closed a moment ago is not there any more.
    return open.flatMap(({ id }) => read.get(id) ?? []);
  }
}

interface Around {
  readonly tools: readonly Tool[];
  readonly today: string;
  readonly names: ReadonlyMap<string, string>;
  /** The day, and the kinds of tool of which one is in date. */
  readonly mark: string;
}

/** Lines and clocks as fields of a JSON object. */
function listsOf(read: readonly Read[], role: Role): string {
  return `"lines":[${read.map(({ lines }) => lines[role]).join(',')}],"clocks":[${read.flatMap(({ clocks }) => clocks).join(',')}]`;
}

function readOf(head: FullRow, state: JobState, { tools, today, names }: Around): Read {
  const now = new Date().toISOString();
  const clocks = state.clocks.map((clock): TodayClock => {
    const then = heldBy(state, clock);
    const { entryId, what, until, hot } = clock;
    return {
      jobId: head.id,
      number: head.number,
      entryId,
      what,
      until,
      ...(hot ? { hot } : {}),
      then: then ? { step: then.ref, stage: then.stage, title: then.title } : null,
    };
  });
  const last = state.live.at(-1);
  const line = (role: Role): TodayLine => ({
    jobId: head.id,
    number: head.number,
    seq: head.lastSeq,
    version: head.version,
    unit: head.unit.name,
    machine: head.machine.name,
    customer: head.customer.name,
    hold: head.hold,
    promise: new Date(head.promise).toISOString(),
    stage: state.stage,
    left: stageProgress(state, state.stage).left,
    openEnds: state.openEnds.map(({ what, place }) => [what, place].filter(Boolean).join(', ')),
    toSettle: toSettle(state),
    last: last ? { personId: last.personId, name: names.get(last.personId) ?? '', at: last.takenAt } : null,
    ...canDo(state, { hold: head.hold, tools, role, now, today }),
  });
  return {
    key: head.key,
    lines: Object.fromEntries(ROLES.map((role) => [role, JSON.stringify(line(role))])) as Record<Role, string>,
    clocks: clocks.map((clock) => JSON.stringify(clock)),
    until: Math.min(...clocks.map(({ until }) => Date.parse(until)).filter((until) => until > Date.parse(now))),
  };
}
