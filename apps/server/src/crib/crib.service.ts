import { workOut, type PersonView } from '@jubb/book';
import { formatQuantity, unitsOf } from '@jubb/core';
import { TOOL_READS, daysOn, uncertaintyWithin } from '@jubb/sheet';
import type { FieldProblem, LendBody, StudyBody, ToolBody, ToolChangeBody, ToolCheckBody, ToolView, TouchedEntry } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import { changedFields, keepChange, type InWords } from '../common/changes.js';
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

  /** A tool comes into the crib. */
  async add(body: ToolBody, by: PersonView): Promise<ToolView> {
    await this.#sound(body);
    const id = await inTransaction(this.dataSource, async (manager) => {
      await tagFree(manager, body.tag);
      // Until a gauge study says otherwise, single readings are taken to spread as the tool is good.
      const row = { ...rowOf(body), s: uncertaintyWithin(body.within, body.resolution) };
      const { identifiers } = await manager.insert(ToolRow, row);
      await keepChange(manager, by, { what: 'tool', subject: row.tag, act: 'added' }, changedFields({}, inWords(row)));
      return String(identifiers[0]!['id']);
    });
    return this.#told(id);
  }

  /** What stands on a tool, or what is known of it, is mended. */
  async change(id: string, { version, ...body }: ToolChangeBody, by: PersonView): Promise<ToolView> {
    await this.#sound(body, id);
    await inTransaction(this.dataSource, async (manager) => {
      const before = await manager.findOne(ToolRow, { where: { id }, lock: { mode: 'pessimistic_write' } });
      if (!before) throw notFound('tool');
      if (before.version !== version) throw changedSince('tool', await this.one(id));
      await tagFree(manager, body.tag, id);
      const row = rowOf(body);
      await manager.update(ToolRow, id, { ...row, version: version + 1 });
      const fields = changedFields(inWords(before), inWords(row));
      if (fields.length > 0) await keepChange(manager, by, { what: 'tool', subject: row.tag, act: 'changed' }, fields);
    });
    return this.#told(id);
  }

  /** A range the wrong way up, a step as wide as the range, a unit of something else, a check of yesterday: none of them is a tool. */
  async #sound({ kind, quantity, unit, low, high, resolution, due }: ToolBody, id?: string): Promise<void> {
    const wrongs: FieldProblem[] = [];
    const figure = (of: number): string => formatQuantity(of, quantity);
    if (!TOOL_READS[kind].includes(quantity))
      wrongs.push({
        field: 'quantity',
        given: quantity,
        allowed: `must be ${TOOL_READS[kind].join(' or ')}: a ${kind.replaceAll('-', ' ')} reads that`,
      });
    else if (!unitsOf(quantity).some(({ symbol }) => symbol === unit))
      wrongs.push({
        field: 'unit',
        given: unit,
        allowed: `must be one of: ${unitsOf(quantity)
          .map(({ symbol }) => symbol)
          .join(', ')}`,
      });
    const hasNone = low === 0 && high === 0;
    if (!hasNone && high <= low)
      wrongs.push({ field: 'high', given: figure(high), allowed: `must be over where it begins, ${figure(low)}` });
    else if (!hasNone && resolution >= high - low)
      wrongs.push({ field: 'resolution', given: figure(resolution), allowed: `must be finer than its range, ${figure(high - low)}` });
    const stands = id === undefined ? null : ((await this.dataSource.manager.findOneBy(ToolRow, { id }))?.calibrationDue ?? null);
    const { today } = await shopDay(this.dataSource);
    // What is overdue, or was found out, comes back by a good check alone.
    if (stands !== null && stands < today) {
      if (due !== stands) wrongs.push({ field: 'due', given: due ?? 'none', allowed: `stays ${stands} until a good check is kept` });
    } else if (due !== undefined && due < today)
      wrongs.push({ field: 'due', given: due, allowed: 'must lie ahead: a tool whose check is over is checked first' });
    if (wrongs.length > 0) throw badInput(wrongs);
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

type Row = Omit<ToolRow, 'id' | 's' | 'lentTo' | 'lentAt' | 'version' | 'holder'>;

function rowOf({ within, length, due, everyDays, tag, name, ...rest }: ToolBody): Row {
  const u = uncertaintyWithin(within, rest.resolution);
  return {
    ...rest,
    tag: tag.trim(),
    name: name.trim(),
    u,
    length: length ?? null,
    calibrationDue: due ?? null,
    everyDays: everyDays ?? null,
  };
}

function inWords({ tag, name, kind, quantity, unit, low, high, resolution, u, length, calibrationDue, everyDays }: Row): InWords {
  const figure = (of: number): string => formatQuantity(of, quantity, unit);
  return {
    tag,
    name,
    kind: kind.replaceAll('-', ' '),
    range: high > low ? `${figure(low)} to ${figure(high)}` : 'none',
    'reads to': figure(resolution),
    'uncertainty u': formatQuantity(u, quantity),
    length: length === null ? '' : formatQuantity(length, 'length'),
    'check due': calibrationDue ?? 'not needed',
    'checked every': everyDays === null ? '' : `${everyDays} days`,
  };
}

async function tagFree(manager: EntityManager, tag: string, id?: string): Promise<void> {
  const other = await manager.findOneBy(ToolRow, { tag: tag.trim() });
  if (other && other.id !== id) throw badInput([{ field: 'tag', given: tag, allowed: `is the tag of another: ${other.name}` }]);
}
