import { Inject, Injectable } from '@nestjs/common';
import type { BookInBody, JobHead, JobView, PatchJobBody, PersonView, ToolKind, Tool } from '@jubb/contract';
import { DataSource, type EntityManager } from 'typeorm';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { ask, poolOf, type Statement } from '../database/data-source.js';
import { Customer, Job, Machine, SheetRevision, Unit } from '../database/entities.js';
import { EntriesService } from '../entries/entries.service.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { StreamService } from '../stream/stream.service.js';

const HEAD = `
  SELECT j.id, j.number, j.stage, j.complaint, j.promise, j.estimate_minor AS "estimateMinor", j.hold, j.version,
         j.booked_at AS "bookedAt", j.closed_at AS "closedAt", j.sheet_revision_id AS "sheetRevisionId",
         json_build_object('id', u.id, 'name', u.name, 'serial', u.serial) AS unit,
         json_build_object('id', m.id, 'name', m.name, 'serial', m.serial) AS machine,
         json_build_object('id', c.id, 'name', c.name, 'phone', c.phone) AS customer
  FROM job j JOIN unit u ON u.id = j.unit_id JOIN machine m ON m.id = u.machine_id JOIN customer c ON c.id = m.customer_id`;

const ONE_HEAD: Statement = { name: 'job-head', text: `${HEAD} WHERE j.id = $1` };
const PEOPLE: Statement = { name: 'people', text: 'SELECT id, name, login, role FROM person ORDER BY name' };
const TOOLS: Statement = {
  name: 'tools',
  text: 'SELECT id, tag, name, kind, quantity, unit, low, high, resolution, u, s, length, calibration_due::text AS "calibrationDue" FROM tool ORDER BY tag',
};

const PAGE = 50;

export type HeadRow = JobHead & { readonly sheetRevisionId: string };

@Injectable()
export class JobsService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(EntriesService) private readonly entries: EntriesService,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  /** Newest first, by key: `before` is the number of the last job of the page before. */
  async list(find: string, before: number | undefined): Promise<readonly JobHead[]> {
    return this.dataSource.query(
      `${HEAD} WHERE ($1 = '' OR (j.number::text || ' ' || u.name || ' ' || u.serial || ' ' || m.name || ' ' || m.serial || ' ' || c.name || ' ' || j.complaint) ILIKE '%' || $1 || '%')
         AND ($2::int IS NULL OR j.number < $2) ORDER BY j.number DESC LIMIT ${PAGE}`,
      [find.replace(/[\\%_]/gu, '\\$&'), before ?? null],
    );
  }

  open(): Promise<readonly HeadRow[]> {
    return this.dataSource.query(`${HEAD} WHERE j.closed_at IS NULL ORDER BY j.promise, j.number`);
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
    const { revision, file } = await this.sheets.pinned(sheetRevisionId);
    return { ...head, sheet: { revisionId: sheetRevisionId, revision, file }, entries, people, tools };
  }

  /** Books a unit in. The same id again is the same job. */
  async bookIn(body: BookInBody): Promise<JobHead> {
    await this.dataSource.transaction(async (manager) => {
      // Two taps that arrive together are one job too.
      await manager.query('SELECT pg_advisory_xact_lock(hashtext($1))', [body.id]);
      if (await manager.existsBy(Job, { id: body.id })) return;
      const revision = await manager.findOneBy(SheetRevision, { id: body.sheetRevisionId });
      if (revision?.status !== 'approved') {
        throw badInput([
          {
            field: 'sheetRevisionId',
            given: body.sheetRevisionId,
            allowed: revision ? `is ${revision.status}; a job needs an approved sheet` : 'is not a sheet of this shop',
          },
        ]);
      }
      const customer = await known(manager, Customer, 'customer.id', body.customer, {
        name: body.customer.name.trim(),
        phone: body.customer.phone?.trim() || null,
      });
      const machine = await known(manager, Machine, 'machine.id', body.machine, {
        customerId: customer.id,
        name: body.machine.name.trim(),
        serial: body.machine.serial.trim(),
      });
      if (machine.customerId !== customer.id)
        throw badInput([{ field: 'machine.id', given: machine.name, allowed: 'belongs to another customer' }]);
      const unit = await known(manager, Unit, 'unit.id', body.unit, {
        machineId: machine.id,
        name: body.unit.name.trim(),
        serial: body.unit.serial.trim(),
      });
      if (unit.machineId !== machine.id) throw badInput([{ field: 'unit.id', given: unit.name, allowed: 'belongs to another machine' }]);
      await manager.insert(Job, {
        id: body.id,
        unitId: unit.id,
        sheetRevisionId: body.sheetRevisionId,
        complaint: body.complaint.trim(),
        promise: new Date(body.promise),
        estimateMinor: body.estimateMinor,
        hold: null,
      });
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
        throw new ProblemError(409, 'Somebody changed this job while you were typing', { current: await this.head(id) });
      }
      const { complaint, promise, estimateMinor, hold } = body;
      await manager.save(
        Object.assign(job, {
          ...(complaint === undefined ? {} : { complaint: complaint.trim() }),
          ...(promise === undefined ? {} : { promise: new Date(promise) }),
          ...(estimateMinor === undefined ? {} : { estimateMinor }),
          ...(hold === undefined ? {} : { hold: hold && { ...hold, since: new Date().toISOString() } }),
        }),
      );
    });
    this.stream.tell({ type: 'job', jobId: id });
    return this.head(id);
  }

  tools(): Promise<readonly (Tool & { kind: ToolKind | string })[]> {
    return ask(poolOf(this.dataSource), TOOLS);
  }

  people(): Promise<readonly PersonView[]> {
    return ask(poolOf(this.dataSource), PEOPLE);
  }
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
