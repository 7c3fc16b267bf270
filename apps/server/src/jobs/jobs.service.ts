import {
  earlierOf,
  leftBy,
  type AnyKeptEntry,
  type AsLeft,
  type EarlierView,
  type JobHead,
  type JobView,
  type OwedLine,
  type PersonView,
  kindsThat,
} from '@jubb/book';
import { find, OVER_THE_COUNTER, type JobScope, type Tool, type ToolKind } from '@jubb/sheet';
import { sheetIssues } from '@jubb/sheet/file';
import type { BookInBody, ComebackView, EarlierReading, PatchJobBody, UnitHistory } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import { badInput, changedSince, notFound } from '../common/problem.js';
import { ask, askJson, poolOf, type Statement } from '../database/data-source.js';
import { Customer, Job, Machine, SheetRevision, Unit } from '../database/entities.js';
import { EntriesService } from '../entries/entries.service.js';
import { entriesByJob } from '../entries/by-job.js';
import { ENTRY_COLUMNS } from '../entries/entries.sql.js';
import { OPEN_OWED } from '../entries/owed.sql.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { StreamService } from '../stream/stream.service.js';

export const HEAD_COLUMNS = `j.id, j.number, j.stage, j.complaint, j.promise, j.estimate_minor AS "estimateMinor", j.hold, j.version,
         j.booked_at AS "bookedAt", j.closed_at AS "closedAt", j.sheet_revision_id AS "sheetRevisionId", j.scope,
         json_build_object('id', u.id, 'name', u.name, 'serial', u.serial) AS unit,
         json_build_object('id', m.id, 'name', m.name, 'serial', m.serial) AS machine,
         json_build_object('id', c.id, 'name', c.name, 'phone', c.phone) AS customer`;
export const HEAD_FROM = `FROM job j JOIN unit u ON u.id = j.unit_id JOIN machine m ON m.id = u.machine_id JOIN customer c ON c.id = m.customer_id`;
const HEAD = `SELECT ${HEAD_COLUMNS} ${HEAD_FROM}`;

const PAGE = 50;
/** Fewer digits are a number of a job or a part, not of a telephone. */
const FEWEST_DIGITS = 4;
/** So many stand on Today; the rest is with its machines. */
const MOST_OWED_SOON = 20;
/** Enough for a middle and a spread. */
const MOST_EARLIER_JOBS = 30;
const PAGE_OF_ALL: Statement = {
  name: 'job-page',
  text: `${HEAD} WHERE ($1::int IS NULL OR j.number < $1) ORDER BY j.number DESC LIMIT ${PAGE}`,
};
const PAGE_FOUND: Statement = {
  name: 'job-page-found',
  text: `${HEAD} WHERE ($1::int IS NULL OR j.number < $1)
         AND ((j.number::text || ' ' || u.name || ' ' || u.serial || ' ' || m.name || ' ' || m.serial || ' ' || c.name || ' ' || j.complaint) ILIKE $2
              OR ($3::text <> '' AND regexp_replace(c.phone, '\\D', '', 'g') LIKE '%' || $3 || '%'))
         ORDER BY j.number DESC LIMIT ${PAGE}`,
};
const ONE_HEAD: Statement = { name: 'job-head', text: `${HEAD} WHERE j.id = $1` };
const LAST_OF_UNIT: Statement = {
  name: 'last-of-unit',
  text: `SELECT b.id, b.number, b.closed_at AS "closedAt", b.sheet_revision_id AS "sheetRevisionId", b.scope
         FROM job j JOIN job b ON b.unit_id = j.unit_id AND b.booked_at < j.booked_at AND b.closed_at IS NOT NULL
         WHERE j.id = $1 ORDER BY b.booked_at DESC LIMIT 1`,
};
const OWED_BEFORE: Statement = {
  name: 'owed-before',
  text: `SELECT o.* FROM (${OPEN_OWED}) o
         WHERE o."machineId" = (SELECT u.machine_id FROM job j JOIN unit u ON u.id = j.unit_id WHERE j.id = $1) AND o."jobId" <> $1 ORDER BY o.due, o."jobNumber"`,
};
const OWED_SOON: Statement = {
  name: 'owed-soon',
  text: `SELECT o.*, count(*) OVER ()::int AS "all" FROM (${OPEN_OWED}) o
         WHERE o.due <= (SELECT to_char((now() AT TIME ZONE zone) + interval '30 days', 'YYYY-MM-DD') FROM shop) ORDER BY o.due, o."jobNumber" LIMIT ${MOST_OWED_SOON}`,
};
const OWED_OF_CUSTOMER: Statement = {
  name: 'owed-of-customer',
  text: `SELECT o.* FROM (${OPEN_OWED}) o JOIN machine m ON m.id = o."machineId" WHERE m.customer_id = $1 ORDER BY o.due, o."jobNumber"`,
};
const PEOPLE: Statement = { name: 'people', text: 'SELECT id, name, login, role FROM person ORDER BY name' };
const TOOLS: Statement = {
  name: 'tools',
  text: 'SELECT id, tag, name, kind, quantity, unit, low, high, resolution, u, s, length, calibration_due::text AS "calibrationDue" FROM tool ORDER BY tag',
};

interface LastJob {
  readonly id: string;
  readonly number: number;
  readonly closedAt: string;
  readonly sheetRevisionId: string;
  readonly scope: JobScope | null;
}

export type HeadRow = JobHead & { readonly sheetRevisionId: string };

/** Kinds that tell later jobs how it went. */
const EARLIER = kindsThat(({ earlier }) => earlier === true);

@Injectable()
export class JobsService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(EntriesService) private readonly entries: EntriesService,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  /** Newest first, by key, as JSON text: `before` is the number of the last job of the page before. */
  listJson(find: string, before: number | undefined): Promise<string> {
    const pool = poolOf(this.dataSource);
    if (find === '') return askJson(pool, PAGE_OF_ALL, before ?? null);
    // A telephone is found by its digits, however it is written.
    const digits = /^[\d\s()/+.-]+$/u.test(find) ? find.replace(/\D/gu, '') : '';
    const like = `%${find.replace(/[\\%_]/gu, '\\$&')}%`;
    return askJson(pool, PAGE_FOUND, before ?? null, like, digits.length >= FEWEST_DIGITS ? digits : '');
  }

  async head(id: string): Promise<HeadRow> {
    const [row] = await ask<HeadRow>(poolOf(this.dataSource), ONE_HEAD, id);
    if (!row) throw notFound('job');
    return row;
  }

  async view(id: string): Promise<JobView> {
    const [{ sheetRevisionId, ...head }, entries, people, tools] = await Promise.all([
      this.head(id),
      this.entries.ofJob(id),
      this.people(),
      this.tools(),
    ]);
    const [{ revision, status, file, notOpened }, newer, asLeft, owed] = await Promise.all([
      this.sheets.pinned(sheetRevisionId, head.scope),
      this.sheets.newer(sheetRevisionId),
      this.#asLeft(id),
      ask<OwedLine>(poolOf(this.dataSource), OWED_BEFORE, id),
    ]);
    const sheet = { revisionId: sheetRevisionId, revision, status, file, notOpened: notOpened.map(({ name }) => name), newer };
    return { ...head, sheet, owed, asLeft, entries, people, tools };
  }

  /** How the unit of a job left the shop the time before. */
  async #asLeft(jobId: string): Promise<AsLeft | null> {
    const [last] = await ask<LastJob>(poolOf(this.dataSource), LAST_OF_UNIT, jobId);
    if (!last) return null;
    const [{ file }, entries] = await Promise.all([this.sheets.pinned(last.sheetRevisionId, last.scope), this.entries.ofJob(last.id)]);
    return { jobId: last.id, number: last.number, closedAt: last.closedAt, ...leftBy(file, entries) };
  }

  /** Books a unit in. The same id again is the same job. */
  async bookIn(body: BookInBody): Promise<JobHead> {
    await this.dataSource.transaction(async (manager) => {
      // Two taps that arrive together are one job too.
      await manager.query('SELECT pg_advisory_xact_lock(hashtext($1))', [body.id]);
      if (await manager.existsBy(Job, { id: body.id })) return;
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
        await manager.query(`UPDATE unit SET serial = 'tag ' || (SELECT number FROM job WHERE id = $2) WHERE id = $1`, [unit.id, body.id]);
    });
    this.stream.tell({ type: 'job', jobId: body.id });
    return this.head(body.id);
  }

  /** Changes what is mutable, if nobody else did since `version`. */
  async patch(id: string, body: PatchJobBody): Promise<JobHead> {
    await this.dataSource.transaction(async (manager) => {
      const job = await manager.findOne(Job, { where: { id }, lock: { mode: 'pessimistic_write' } });
      if (!job) throw notFound('job');
      if (job.version !== body.version) {
        throw changedSince('job', await this.head(id));
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
    const jobs = await this.dataSource.query<UnitHistory['jobs']>(
      `SELECT j.id, j.number, j.booked_at AS "bookedAt", j.closed_at AS "closedAt", j.complaint, s.key AS "sheetKey", j.scope,
              coalesce((SELECT json_agg(json_build_object('part', coalesce(p->>'name', e.payload->>'part'), 'reason', e.payload->>'reason', 'cause', e.payload->'cause') ORDER BY e.seq)
                 FROM entry e LEFT JOIN LATERAL (SELECT part AS p FROM jsonb_array_elements(s.file->'parts') part
                   WHERE part->>'ref' = regexp_replace(e.payload->>'part', '--.*$', '')) named ON true
                 WHERE e.job_id = j.id AND e.kind = 'decision' AND e.payload->>'fate' = 'renew'
                   AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)), '[]') AS renewed
       FROM job j JOIN sheet_revision s ON s.id = j.sheet_revision_id WHERE j.unit_id = $1 ORDER BY j.booked_at DESC LIMIT 20`,
      [unitId],
    );
    return { jobs };
  }

  /** What earlier jobs of the same unit read, the newest first. */
  earlier(jobId: string): Promise<readonly EarlierReading[]> {
    return this.dataSource.query(
      `SELECT e.payload->>'limit' AS "limit", b.number AS "jobNumber", e.taken_at AS at,
         e.payload->'readings' AS readings, e.payload->'warm' AS warm
       FROM job j JOIN job b ON b.unit_id = j.unit_id AND b.booked_at < j.booked_at JOIN entry e ON e.job_id = b.id AND e.kind = 'reading'
       WHERE j.id = $1 AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id) ORDER BY e.taken_at DESC LIMIT 500`,
      [jobId],
    );
  }

  /** How other jobs of the same sheet came to their settings, pulls and fits. */
  async workedBefore(jobId: string): Promise<EarlierView> {
    const { sheetRevisionId } = await this.head(jobId);
    const entries = await this.dataSource.query<AnyKeptEntry[]>(
      `WITH others(other, since) AS (
         SELECT b.id, b.booked_at FROM job j JOIN sheet_revision own ON own.id = j.sheet_revision_id
           JOIN sheet_revision s ON s.key = own.key JOIN job b ON b.sheet_revision_id = s.id AND b.id <> j.id
         WHERE j.id = $1 ORDER BY b.booked_at DESC LIMIT ${MOST_EARLIER_JOBS})
       SELECT ${ENTRY_COLUMNS} FROM entry e JOIN others ON other = e.job_id
       WHERE e.kind = ANY ($2::text[]) AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)
       ORDER BY since DESC, e.seq`,
      [jobId, EARLIER],
    );
    const { file } = await this.sheets.pinned(sheetRevisionId, null);
    return earlierOf(file, [...entriesByJob(entries).values()]);
  }

  async comebacks(jobId: string): Promise<ComebackView> {
    const [row] = await this.dataSource.query<ComebackView[]>(
      `SELECT count(*)::int AS "handedOver",
         count(*) FILTER (WHERE EXISTS (SELECT 1 FROM job b WHERE b.unit_id = j.unit_id AND b.booked_at > j.closed_at AND b.booked_at < j.closed_at + interval '1 year'))::int AS "cameBack"
       FROM job j JOIN sheet_revision s ON s.id = j.sheet_revision_id
       WHERE j.closed_at IS NOT NULL AND s.key = (SELECT own.key FROM job here JOIN sheet_revision own ON own.id = here.sheet_revision_id WHERE here.id = $1)`,
      [jobId],
    );
    return row ?? { handedOver: 0, cameBack: 0 };
  }

  /** What a customer's machines still owe. */
  owedBy(customerId: string): Promise<readonly OwedLine[]> {
    return ask(poolOf(this.dataSource), OWED_OF_CUSTOMER, customerId);
  }

  /** What comes due within a month, of every machine: the first of it, and how much more there is. */
  async owedSoon(): Promise<{ readonly lines: readonly OwedLine[]; readonly more: number }> {
    const rows = await ask<OwedLine & { readonly all: number }>(poolOf(this.dataSource), OWED_SOON);
    return { lines: rows.map(({ all: _all, ...line }) => line), more: (rows[0]?.all ?? 0) - rows.length };
  }

  tools(): Promise<readonly (Tool & { kind: ToolKind | string })[]> {
    return ask(poolOf(this.dataSource), TOOLS);
  }

  people(): Promise<readonly PersonView[]> {
    return ask(poolOf(this.dataSource), PEOPLE);
  }
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
