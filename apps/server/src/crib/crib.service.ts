import { workOut, type PersonView } from '@jubb/book';
import { daysOn } from '@jubb/sheet';
import type { LendBody, StudyBody, ToolCheckBody, ToolView, TouchedEntry } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import { badInput, changedSince, notFound } from '../common/problem.js';
import { shopDay } from '../common/shop-day.js';
import { ask, inTransaction } from '../database/data-source.js';
import { ToolCheck, ToolRow, ToolStudy } from '../database/entities/index.js';
import { StreamService } from '../stream/stream.service.js';
import { TOUCHED } from './crib.sql.js';

/** So many of the newest are shown. */
const MOST_CHECKS = 50;
const MOST_STUDIES = 20;

@Injectable()
export class CribService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  async one(id: string): Promise<ToolView> {
    const { manager } = this.dataSource;
    const [tool, checks, studies] = await Promise.all([
      manager.findOne(ToolRow, { where: { id }, relations: { holder: true } }),
      manager.find(ToolCheck, { where: { toolId: id }, relations: { person: true }, order: { keptAt: 'DESC' }, take: MOST_CHECKS }),
      manager.find(ToolStudy, { where: { toolId: id }, relations: { person: true }, order: { keptAt: 'DESC' }, take: MOST_STUDIES }),
    ]);
    if (!tool) throw notFound('tool');
    const { holder, lentAt, lentTo: _lent, ...head } = tool;
    return {
      ...head,
      holder: holder && { id: holder.id, name: holder.name, since: lentAt!.toISOString() },
      checks: checks.map(({ person, keptAt, toolId: _tool, personId: _person, ...check }) => ({
        ...check,
        person: person.name,
        at: keptAt.toISOString(),
      })),
      studies: studies.map(({ id: studyId, person, keptAt, result: { sigma = 0, share = 0, categories = 0 } }) => ({
        id: studyId,
        at: keptAt.toISOString(),
        person: person.name,
        sigma,
        share,
        categories,
      })),
      touched: checks[0]?.verdict === 'out' ? await ask<TouchedEntry>(manager, TOUCHED, id) : [],
    };
  }

  /** A tool found out is not offered any more; one found good is, until its next check. */
  async check(id: string, body: ToolCheckBody, person: PersonView): Promise<ToolView> {
    const { today: day } = await shopDay(this.dataSource);
    if (body.verdict === 'good' && body.due !== undefined && body.due <= day)
      throw badInput([{ field: 'due', given: body.due, allowed: 'must lie ahead' }]);
    await inTransaction(this.dataSource, async (manager) => {
      if (!(await lockTool(manager, id)) || (await manager.existsBy(ToolCheck, { id: body.id }))) return;
      const { verdict, points, due = null } = body;
      await manager.insert(ToolCheck, {
        id: body.id,
        toolId: id,
        verdict,
        points,
        against: body.against.trim(),
        certificate: body.certificate?.trim() || null,
        due,
        personId: person.id,
      });
      await manager.update(ToolRow, id, {
        // A due day that is over keeps it from being offered at the bench.
        calibrationDue: verdict === 'out' ? daysOn('UTC', day, -1) : due,
        ...(body.everyDays === undefined ? {} : { everyDays: body.everyDays }),
        version: () => 'version + 1',
      });
    });
    return this.#told(id);
  }

  /** Says who has it, if nobody changed the tool since `version`: of two who take it, one has it. */
  async lend(id: string, { personId = null, version }: LendBody): Promise<ToolView> {
    const { affected } = await this.dataSource.manager.update(
      ToolRow,
      { id, version },
      { lentTo: personId, lentAt: personId === null ? null : () => 'now()', version: () => 'version + 1' },
    );
    if (!affected) throw changedSince('tool', await this.one(id));
    return this.#told(id);
  }

  /** Works a gauge study out and makes its spread the tool's own. */
  async study(id: string, body: StudyBody, person: PersonView): Promise<ToolView> {
    const worked = workOut('measure.gauge-rr', { readings: body.readings });
    if ('issues' in worked)
      throw badInput(
        worked.issues.map(({ field, words, received }) => ({
          field,
          allowed: words,
          ...(received === undefined ? {} : { given: received }),
        })),
      );
    const { output } = worked.used;
    await inTransaction(this.dataSource, async (manager) => {
      if (!(await lockTool(manager, id)) || (await manager.existsBy(ToolStudy, { id: body.id }))) return;
      await manager.insert(ToolStudy, {
        id: body.id,
        toolId: id,
        readings: body.readings,
        result: output as Record<string, number>,
        personId: person.id,
      });
      await manager.update(ToolRow, id, { s: output['sigma'] as number, version: () => 'version + 1' });
    });
    return this.#told(id);
  }

  async #told(id: string): Promise<ToolView> {
    this.stream.tell({ type: 'stores' });
    return this.one(id);
  }
}

/** Of two who keep the same check or study at once, one does. */
async function lockTool(manager: EntityManager, id: string): Promise<boolean> {
  return (await manager.findOne(ToolRow, { where: { id }, lock: { mode: 'pessimistic_write' } })) !== null;
}
