import {
  earlierOf,
  leftBy,
  staying,
  type AnyKeptEntry,
  type AsLeft,
  type EarlierView,
  type JobHead,
  type JobView,
  type NewEntry,
  type OwedLine,
  type PersonView,
  type Stay,
  kindsThat,
} from '@jubb/book';
import { find, OVER_THE_COUNTER, type JobScope, type SheetFile, type Tool, type ToolKind } from '@jubb/sheet';
import { sheetIssues } from '@jubb/sheet/file';
import type { BookInBody, ComebackView, EarlierReading, KnowHow, MadeTool, PatchJobBody, UnitHistory } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { badInput, changedSince, notFound } from '../common/problem.js';
import { anywhere, ask, askJson, inTransaction, lockName } from '../database/data-source.js';
import { Customer, Job, Machine, SheetRevision, Unit } from '../database/entities/index.js';
import { EntriesService } from '../entries/entries.service.js';
import { entriesByJob } from '../entries/by-job.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { remember } from '../common/remember.js';
import { StreamService } from '../stream/stream.service.js';
import {
  AROUND_JOB,
  COMEBACKS,
  KNOW_HOW,
  LAST_OF_UNIT,
  MADE_TOOLS,
  HISTORY_OF_UNIT,
  ONE_HEAD,
  OWED_OF_CUSTOMER,
  OWED_SOON,
  PAGE_FOUND,
  PAGE_OF_ALL,
  PEOPLE,
  READ_BEFORE,
  TOOLS,
  WORKED_BEFORE,
} from './jobs.sql.js';

/** Fewer digits are a number of a job or a part, not of a telephone. */
const FEWEST_DIGITS = 4;
interface LastJob {
  readonly id: string;
  readonly number: number;
  readonly closedAt: string;
  readonly sheetRevisionId: string;
  readonly scope: JobScope | null;
}

/** A row of `AROUND_JOB`: all but the last job as JSON. */
interface AroundJob {
  readonly people: string;
  readonly tools: string;
  readonly owed: string;
  readonly newer: string | null;
  readonly last: LastJob | null;
}

/** Of so many jobs it is remembered how their units left the shop. */
const MOST_LEFT = 500;

export type HeadRow = JobHead & { readonly sheetRevisionId: string };

/** Kinds that tell later jobs how it went. */
const EARLIER = kindsThat(({ earlier }) => earlier === true);

@Injectable()
export class JobsService {
  readonly #left = new Map<string, Promise<AsLeft>>();

  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(EntriesService) private readonly entries: EntriesService,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  /** Newest first, by key, as JSON text: `before` is the number of the last job of the page before. */
  listJson(find: string, before: number | undefined): Promise<string> {
    const { manager } = this.dataSource;
    if (find === '') return askJson(manager, PAGE_OF_ALL, before ?? null);
    // A telephone is found by its digits, however it is written.
    const digits = /^[\d\s()/+.-]+$/u.test(find) ? find.replace(/\D/gu, '') : '';
    // Only what can be in a number is looked for in numbers: that goes by no index.
    const inNumber = /^\d+$/u.test(find) ? anywhere(find) : '';
    return askJson(manager, PAGE_FOUND, before ?? null, anywhere(find), digits.length >= FEWEST_DIGITS ? digits : '', inNumber);
  }

  async head(id: string, manager = this.dataSource.manager): Promise<HeadRow> {
    const [row] = await ask<HeadRow>(manager, ONE_HEAD, id);
    if (!row) throw notFound('job');
    return row;
  }

  async view(id: string): Promise<JobView> {
    return JSON.parse(await this.viewJson(id)) as JobView;
  }

  /** `JobView` as JSON, put together from what the database makes and what is remembered: it is long, and asked for all day. */
  async viewJson(id: string): Promise<string> {
    const [entries, [found]] = await Promise.all([
      this.entries.jsonOfJob(id),
      ask<HeadRow & AroundJob>(this.dataSource.manager, AROUND_JOB, id),
    ]);
    if (!found) throw notFound('job');
    const { people, tools, owed, newer, last, sheetRevisionId, ...head } = found;
    const asLeft = last && (await this.#asLeft(last));
    const { revision, status, file, notOpened } = await this.sheets.pinned(sheetRevisionId, head.scope);
    const sheet = { revisionId: sheetRevisionId, revision, status, notOpened: notOpened.map(({ name }) => name) };
    return withMembers(JSON.stringify({ ...head, asLeft }), {
      sheet: withMembers(JSON.stringify(sheet), { newer: newer ?? 'null', file: jsonOf(file) }),
      owed,
      entries,
      people,
      tools,
    });
  }

  /** A job that was handed over stays as it is. */
  #asLeft(last: LastJob): Promise<AsLeft> {
    const left = this.#left.get(last.id) ?? this.#leftBy(last);
    remember(this.#left, last.id, left, MOST_LEFT);
    left.catch(() => this.#left.delete(last.id));
    return left;
  }

  /** How a unit left the shop with a job that was handed over. */
  async #leftBy({ id, number, closedAt, sheetRevisionId, scope }: LastJob): Promise<AsLeft> {
    const [{ file }, entries] = await Promise.all([this.sheets.pinned(sheetRevisionId, scope), this.entries.ofJob(id)]);
    return { jobId: id, number, closedAt, ...leftBy(file, entries) };
  }

  /** The ways that a unit was left with the last time, and that are on it still. */
  async #staying({ unit, sheetRevisionId, scope }: BookInBody): Promise<readonly Stay[]> {
    if (unit.id === undefined) return [];
    const [found] = await ask<{ readonly last: LastJob }>(this.dataSource.manager, LAST_OF_UNIT, unit.id, sheetRevisionId);
    if (!found) return [];
    const [left, { file }] = await Promise.all([this.#asLeft(found.last), this.sheets.pinned(sheetRevisionId, scope ?? null)]);
    return staying(left, file);
  }

  /** Books a unit in; ways that stay on it are its first entries. The same id again is the same job. */
  async bookIn(body: BookInBody, by: PersonView): Promise<JobHead> {
    const stays = await this.#staying(body);
    const tell = await inTransaction(this.dataSource, async (manager) => {
      // Two taps that arrive together are one job too.
      await lockName(manager, body.id);
      if (await manager.existsBy(Job, { id: body.id })) return undefined;
      const revision = await manager.findOneBy(SheetRevision, { id: body.sheetRevisionId });
      checkSheet(revision, body);
      const customer = await known(manager, Customer, 'customer.id', body.customer, {
        name: body.customer.name.trim(),
        phone: body.customer.phone?.trim() || null,
      });
      const machine = body.machine
        ? await known(manager, Machine, 'machine.id', body.machine, {
            customerId: customer.id,
            name: body.machine.name.trim(),
            serial: body.machine.serial?.trim() ?? '',
          })
        : await overTheCounter(manager, customer.id);
      if (machine.customerId !== customer.id)
        throw badInput([{ field: 'machine.id', given: machine.name, allowed: 'belongs to another customer' }]);
      const unit = await known(manager, Unit, 'unit.id', body.unit, {
        machineId: machine.id,
        name: body.unit.name.trim(),
        serial: body.unit.serial?.trim() ?? '',
      });
      if (unit.machineId !== machine.id) throw badInput([{ field: 'unit.id', given: unit.name, allowed: 'belongs to another machine' }]);
      await manager.insert(Job, {
        id: body.id,
        unitId: unit.id,
        sheetRevisionId: body.sheetRevisionId,
        complaint: body.complaint.trim(),
        promise: new Date(body.promise),
        estimateMinor: body.estimateMinor,
        scope: body.scope ?? null,
      });
      // A unit with no number on it goes by the tag of its first job.
      if (unit.serial === '')
        await manager.update(Unit, unit.id, { serial: `tag ${(await manager.findOneByOrFail(Job, { id: body.id })).number}` });
      if (stays.length === 0) return undefined;
      const takenAt = new Date().toISOString();
      const entries = stays.map((stay): NewEntry => ({ kind: 'way', ...stay, id: uuid(), takenAt }));
      return this.entries.postWithin(manager, body.id, by, entries);
    });
    tell?.();
    this.stream.tell({ type: 'job', jobId: body.id });
    return this.head(body.id);
  }

  /** Changes what is mutable, if nobody else did since `version`. */
  async patch(id: string, body: PatchJobBody): Promise<JobHead> {
    await inTransaction(this.dataSource, async (manager) => {
      const job = await manager.findOne(Job, { where: { id }, lock: { mode: 'pessimistic_write' } });
      if (!job) throw notFound('job');
      if (job.version !== body.version) {
        throw changedSince('job', await this.head(id, manager));
      }
      const { complaint, promise, estimateMinor } = body;
      await manager.save(
        Object.assign(job, {
          ...(complaint === undefined ? {} : { complaint: complaint.trim() }),
          ...(promise === undefined ? {} : { promise: new Date(promise) }),
          ...(estimateMinor === undefined ? {} : { estimateMinor }),
        }),
      );
    });
    this.stream.tell({ type: 'job', jobId: id });
    return this.head(id);
  }

  /** Earlier jobs of this very unit, the newest first, with what was renewed and why. */
  async history(unitId: string): Promise<UnitHistory> {
    const jobs = await ask<UnitHistory['jobs'][number]>(this.dataSource.manager, HISTORY_OF_UNIT, unitId);
    return { jobs };
  }

  /** What earlier jobs of the same unit read, the newest first. */
  earlier(jobId: string): Promise<readonly EarlierReading[]> {
    return ask(this.dataSource.manager, READ_BEFORE, jobId);
  }

  /** How other jobs of the same sheet came to their settings, pulls and fits. */
  async workedBefore(jobId: string): Promise<EarlierView> {
    const { sheetRevisionId } = await this.head(jobId);
    const entries = await ask<AnyKeptEntry>(this.dataSource.manager, WORKED_BEFORE, jobId, EARLIER);
    const { file } = await this.sheets.pinned(sheetRevisionId, null);
    return earlierOf(file, [...entriesByJob(entries).values()]);
  }

  knowHow(jobId: string): Promise<readonly KnowHow[]> {
    return ask(this.dataSource.manager, KNOW_HOW, jobId);
  }

  /** What was made on jobs, the newest first. */
  madeTools(): Promise<readonly MadeTool[]> {
    return ask(this.dataSource.manager, MADE_TOOLS);
  }

  async comebacks(jobId: string): Promise<ComebackView> {
    const [row] = await ask<ComebackView>(this.dataSource.manager, COMEBACKS, jobId);
    return row ?? { handedOver: 0, cameBack: 0 };
  }

  /** What a customer's machines still owe. */
  owedBy(customerId: string): Promise<readonly OwedLine[]> {
    return ask(this.dataSource.manager, OWED_OF_CUSTOMER, customerId);
  }

  /** What comes due within a month, of every machine: the first of it, and how much more there is. */
  async owedSoon(): Promise<{ readonly lines: readonly OwedLine[]; readonly more: number }> {
    const rows = await ask<OwedLine & { readonly all: number }>(this.dataSource.manager, OWED_SOON);
    return { lines: rows.map(({ all: _all, ...line }) => line), more: (rows[0]?.all ?? 0) - rows.length };
  }

  tools(): Promise<readonly (Tool & { kind: ToolKind | string })[]> {
    return ask(this.dataSource.manager, TOOLS);
  }

  people(): Promise<readonly PersonView[]> {
    return ask(this.dataSource.manager, PEOPLE);
  }
}

/** Sheets as JSON, for as long as they are remembered. */
const SHEET_JSON = new WeakMap<SheetFile, string>();

function jsonOf(file: SheetFile): string {
  const json = SHEET_JSON.get(file) ?? JSON.stringify(file);
  SHEET_JSON.set(file, json);
  return json;
}

/** A JSON object with more members, each of them JSON already. */
function withMembers(object: string, members: Readonly<Record<string, string>>): string {
  const more = Object.entries(members).map(([name, json]) => `${JSON.stringify(name)}:${json}`);
  return `${object.slice(0, -1)},${more.join(',')}}`;
}

/** A job goes by an approved sheet; or, for a model that is new here, by its first draft while that is written. */
function checkSheet(revision: SheetRevision | null, { sheetRevisionId, scope }: BookInBody): void {
  const refuse = (allowed: string): never => {
    throw badInput([{ field: 'sheetRevisionId', given: sheetRevisionId, allowed }]);
  };
  if (!revision) return refuse('is not a sheet of this shop');
  const first = revision.status === 'draft' && revision.revision === 1;
  if (revision.status !== 'approved' && !first) refuse(`is ${revision.status}; a job needs an approved sheet`);
  const issues = first ? sheetIssues(revision.file as unknown as Record<string, unknown>) : [];
  if (issues.length > 0) refuse(`does not hold together yet: ${issues[0]?.path ?? ''} ${issues[0]?.message ?? ''}`);
  const { tasks = [], variants = [], sides = [], complaints = [] } = revision.file;
  const problems = [
    ...(scope?.tasks ?? [])
      .filter((ref) => !find(tasks, ref))
      .map((given) => ({ field: 'scope.tasks', given, known: tasks.map(({ ref }) => ref) })),
    ...(scope?.picks ?? [])
      .filter((ref) => !find(complaints, ref))
      .map((given) => ({ field: 'scope.picks', given, known: complaints.map(({ ref }) => ref) })),
    ...(scope?.sides ?? []).filter((side) => !sides.includes(side)).map((given) => ({ field: 'scope.sides', given, known: sides })),
    ...(scope?.variant !== undefined && !find(variants, scope.variant)
      ? [{ field: 'scope.variant', given: scope.variant, known: variants.map(({ ref }) => ref) }]
      : []),
  ];
  if (problems.length > 0)
    throw badInput(
      problems.map(({ field, given, known }) => ({ field, given, allowed: `is not on this sheet; it has: ${known.join(', ') || 'none'}` })),
    );
}

/** What a customer brings without its machine is kept together, so that it is known the next time. */
async function overTheCounter(manager: EntityManager, customerId: string): Promise<Machine> {
  const repository = manager.getRepository(Machine);
  const place = { customerId, name: OVER_THE_COUNTER, serial: '' };
  return (await repository.findOneBy(place)) ?? repository.save(Object.assign(new Machine(), place));
}

/** The row an id names, or a new one from what was typed. */
async function known<T extends { id: string }>(
  manager: EntityManager,
  type: new () => T,
  field: string,
  given: { id?: string },
  fresh: Partial<T>,
): Promise<T> {
  const repository = manager.getRepository(type);
  if (given.id === undefined) return repository.save(Object.assign(new type(), fresh));
  const row = await repository.findOneBy({ id: given.id } as never);
  if (!row) throw badInput([{ field, given: given.id, allowed: 'is not known to this shop' }]);
  return row;
}
