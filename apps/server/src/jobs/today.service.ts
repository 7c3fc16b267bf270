import { setImmediate as letOthers } from 'node:timers/promises';
import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import {
  canDo,
  heldBy,
  jobState,
  ROLES,
  stageProgress,
  type AnyKeptEntry,
  type CanDo,
  type JobState,
  type PersonView,
  type Role,
  type TodayClock,
  type TodayLine,
  type TodayTold,
  type TodayView,
  type Tool,
} from '@jubb/contract';
import { Subject } from 'rxjs';
import { DataSource } from 'typeorm';
import { shopDay } from '../common/shop-day.js';
import { ask, poolOf, type Statement } from '../database/data-source.js';
import { ENTRY_COLUMNS } from '../entries/entries.service.js';
import { NoticesService } from '../notices/notices.service.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { StreamService } from '../stream/stream.service.js';
import { HEAD_COLUMNS, HEAD_FROM, JobsService, type HeadRow } from './jobs.service.js';

/** What the line of a job is made from, besides its entries. */
type OpenRow = HeadRow & { readonly lastSeq: number; readonly sheetVersion: number };

/** A job as its entries have it, until its number moves. */
interface Read {
  readonly key: string;
  readonly seq: number;
  readonly shown: Pick<TodayLine, 'stage' | 'left' | 'openEnds' | 'last'>;
  readonly doing: Readonly<Record<Role, CanDo>>;
  readonly clocks: readonly TodayClock[];
  /** When a clock that runs on it ends, ms; it is read anew then. */
  readonly until: number;
}

const OPEN = `SELECT ${HEAD_COLUMNS}, j.last_seq AS "lastSeq", (SELECT s.version FROM sheet_revision s WHERE s.id = j.sheet_revision_id) AS "sheetVersion" ${HEAD_FROM}
  WHERE j.closed_at IS NULL`;
const ALL: Statement = { name: 'today-all', text: `${OPEN} ORDER BY j.promise, j.number` };
const SOME: Statement = { name: 'today-some', text: `${OPEN} AND j.id = ANY ($1::uuid[])` };
const ENTRIES: Statement = {
  name: 'today-entries',
  text: `SELECT ${ENTRY_COLUMNS} FROM entry WHERE job_id = ANY ($1::uuid[]) ORDER BY job_id, seq`,
};
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

  async view(person: PersonView): Promise<TodayView> {
    const { role } = person;
    const [heads, around, owed, notices] = await Promise.all([
      ask<OpenRow>(poolOf(this.dataSource), ALL),
      this.#around(),
      this.jobs.owedSoon(),
      this.notices.of(person),
    ]);
    const read = await this.#readAll(heads, around);
    const open = new Set(heads.map(({ id }) => id));
    for (const id of this.#read.keys()) if (!open.has(id)) this.#read.delete(id);
    const { tools, today } = around;
    return {
      lines: heads.map((head, index) => lineOf(head, read[index]!, role)),
      clocks: read.flatMap(({ clocks }) => clocks),
      owed: owed.lines,
      owedMore: owed.more,
      crib: tools
        .filter((tool) => tool.calibrationDue !== null && tool.calibrationDue < today)
        .map((tool) => ({ tag: tool.tag, name: tool.name, due: tool.calibrationDue ?? '' })),
      notices,
    };
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
    const [heads, around] = await Promise.all([ask<OpenRow>(poolOf(this.dataSource), SOME, ids), this.#around()]);
    for (const id of ids) this.#changed.delete(id);
    const read = await this.#readAll(heads, around);
    const open = new Set(heads.map(({ id }) => id));
    const gone = ids.filter((id) => !open.has(id));
    const clocks = read.flatMap((one) => one.clocks);
    const forRole = (role: Role): string => {
      const told: TodayTold = { type: 'today', lines: heads.map((head, index) => lineOf(head, read[index]!, role)), clocks, gone };
      return JSON.stringify(told);
    };
    this.told.next(Object.fromEntries(ROLES.map((role) => [role, forRole(role)])) as Record<Role, string>);
  }

  async #around(): Promise<Around> {
    const [tools, people, { today }] = await Promise.all([this.jobs.tools(), this.jobs.people(), shopDay(this.dataSource)]);
    return { tools, today, names: new Map(people.map(({ id, name }) => [id, name])) };
  }

  /** The jobs as they are now, in the order given. */
  #readAll(heads: readonly OpenRow[], around: Around): Promise<readonly Read[]> {
    const turn = this.#turn.then(() => this.#inTurn(heads, around));
    this.#turn = turn.catch(() => undefined);
    return turn;
  }

  async #inTurn(heads: readonly OpenRow[], around: Around): Promise<readonly Read[]> {
    const now = Date.now();
    const usable = usableKinds(around);
    const read = new Map<string, Read>();
    for (const head of heads) {
      const known = this.#read.get(head.id);
      if (known && known.key === keyOf(head, around.today, usable) && known.until > now) read.set(head.id, known);
    }
    const old = heads.filter(({ id }) => !read.has(id));
    let since = performance.now();
    for (let at = 0; at < old.length; at += JOBS_AT_ONCE) {
      const some = old.slice(at, at + JOBS_AT_ONCE);
      const entries = await ask<AnyKeptEntry>(
        poolOf(this.dataSource),
        ENTRIES,
        some.map(({ id }) => id),
      );
      const byJob = grouped(entries);
      for (const head of some) {
        const { file } = await this.sheets.pinned(head.sheetRevisionId, head.scope);
        const state = jobState(file, byJob.get(head.id) ?? []);
        const one = readOf(head, state, around, keyOf(head, around.today, usable));
        read.set(head.id, one);
        this.#read.set(head.id, one);
        if (performance.now() - since < SLICE_MS) continue;
        await letOthers();
        since = performance.now();
      }
    }
    return heads.map(({ id }) => read.get(id)!);
  }
}

interface Around {
  readonly tools: readonly Tool[];
  readonly today: string;
  readonly names: ReadonlyMap<string, string>;
}

/** The kinds of tool of which one is in date. */
function usableKinds({ tools, today }: Around): string {
  const inDate = tools.filter((tool) => tool.calibrationDue === null || tool.calibrationDue >= today);
  return [...new Set(inDate.map(({ kind }) => kind))].toSorted().join();
}

/** Everything that the doing of a job hangs on. */
function keyOf({ lastSeq, sheetRevisionId, sheetVersion, scope, hold }: OpenRow, today: string, usable: string): string {
  return JSON.stringify([lastSeq, sheetRevisionId, sheetVersion, scope, hold, today, usable]);
}

function grouped(entries: readonly AnyKeptEntry[]): ReadonlyMap<string, readonly AnyKeptEntry[]> {
  const map = new Map<string, AnyKeptEntry[]>();
  for (const entry of entries) {
    const list = map.get(entry.jobId);
    if (list) list.push(entry);
    else map.set(entry.jobId, [entry]);
  }
  return map;
}

function readOf(head: OpenRow, state: JobState, around: Around, key: string): Read {
  const now = new Date().toISOString();
  const { tools, today, names } = around;
  const clocks = state.clocks.map((clock): TodayClock => {
    const then = heldBy(state, clock);
    const { entryId, what, until } = clock;
    return {
      jobId: head.id,
      number: head.number,
      entryId,
      what,
      until,
      then: then ? { step: then.ref, stage: then.stage, title: then.title } : null,
    };
  });
  const last = state.live.at(-1);
  const doing = (role: Role): CanDo => canDo(state, { hold: head.hold, tools, role, now, today });
  return {
    key,
    seq: head.lastSeq,
    shown: {
      stage: state.stage,
      left: stageProgress(state, state.stage).left,
      openEnds: state.openEnds.map(({ what, place }) => [what, place].filter(Boolean).join(', ')),
      last: last ? { personId: last.personId, name: names.get(last.personId) ?? '', at: last.takenAt } : null,
    },
    doing: Object.fromEntries(ROLES.map((role) => [role, doing(role)])) as Record<Role, CanDo>,
    clocks,
    until: Math.min(...clocks.map(({ until }) => Date.parse(until)).filter((until) => until > Date.parse(now))),
  };
}

function lineOf(head: OpenRow, { seq, shown, doing }: Read, role: Role): TodayLine {
  return {
    jobId: head.id,
    number: head.number,
    seq,
    version: head.version,
    unit: head.unit.name,
    machine: head.machine.name,
    customer: head.customer.name,
    hold: head.hold,
    promise: new Date(head.promise).toISOString(),
    ...shown,
    ...doing[role],
  };
}
