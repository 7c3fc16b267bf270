import { workOut, type PersonView } from '@jubb/book';
import { formatQuantity, unitsOf } from '@jubb/core';
import { TOOL_READS, daysOn, isPushing, limitOfError, uncertaintyWithin, type CribKind } from '@jubb/sheet';
import {
  ToolBody,
  toolFrom,
  type Cells,
  type FieldProblem,
  type LendBody,
  type RetireBody,
  type StudyBody,
  type ToolChangeBody,
  type ToolCheckBody,
  type ToolPictureBody,
  type ToolView,
  type TouchedEntry,
} from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import { changedFields, keepChange, type InWords } from '../common/changes.js';
import { checkPaper } from '../common/papers.js';
import { badInput, changedSince, notFound } from '../common/problem.js';
import { shopDay } from '../common/shop-day.js';
import { checkRow } from '../common/validation.js';
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
    const id = await inTransaction(this.dataSource, (manager) => this.#put(manager, body, by));
    return this.#told(id);
  }

  async #put(manager: EntityManager, body: ToolBody, by: PersonView): Promise<string> {
    await this.#sound(manager, body);
    await tagFree(manager, body.tag);
    // Until a gauge study says otherwise, single readings are taken to spread as the tool is good.
    const row = { ...rowOf(body), s: uncertaintyWithin(body.within, body.resolution) };
    const { identifiers } = await manager.insert(ToolRow, row);
    await keepChange(manager, by, { what: 'tool', subject: row.tag, act: 'added' }, changedFields({}, inWords(row)));
    return String(identifiers[0]!['id']);
  }

  /** A row of a table as a tool: a new one, or the one of its tag, mended by what the row says. */
  async bring(manager: EntityManager, cells: Cells, by: PersonView): Promise<'made' | 'changed' | 'same'> {
    const before = await manager.findOne(ToolRow, { where: { tag: (cells['tag'] ?? '').trim() }, lock: { mode: 'pessimistic_write' } });
    const { body, wrongs } = toolFrom(cells, before ? bodyOf(before) : undefined);
    checkRow(ToolBody, body, wrongs);
    if (!before) {
      await this.#put(manager, body, by);
      return 'made';
    }
    return (await this.#mend(manager, before, body, by)) ? 'changed' : 'same';
  }

  /** What stands on a tool, or what is known of it, is mended. */
  async change(id: string, { version, ...body }: ToolChangeBody, by: PersonView): Promise<ToolView> {
    await inTransaction(this.dataSource, async (manager) => {
      await this.#mend(manager, await this.#asRead(manager, id, version), body, by);
    });
    return this.#told(id);
  }

  /** Whether something is other than before. */
  async #mend(manager: EntityManager, before: ToolRow, body: ToolBody, by: PersonView): Promise<boolean> {
    await this.#sound(manager, body, before);
    await tagFree(manager, body.tag, before.id);
    const known = bodyOf(before);
    const isAsGood = isSame(body.within, known.within) && isSame(body.resolution, known.resolution);
    // How good it is stays as it was found, where nobody says otherwise.
    const row = { ...rowOf(body), ...(isAsGood ? { u: before.u } : {}) };
    // By what is kept, and not by how it is shown: a figure may be mended finer than its unit is written.
    if (Object.entries(row).every(([name, value]) => isSame(value, before[name as keyof Row]))) return false;
    await manager.update(ToolRow, before.id, { ...row, version: before.version + 1 });
    const fields = changedFields(inWords(before), inWords(row));
    if (fields.length > 0) await keepChange(manager, by, { what: 'tool', subject: row.tag, act: 'changed' }, fields);
    return true;
  }

  /** A range the wrong way up, a step as wide as the range, a unit of something else, a check of yesterday: none of them is a tool. */
  async #sound(manager: EntityManager, { kind, quantity, unit, low, high, resolution, due }: ToolBody, before?: ToolRow): Promise<void> {
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
    if (isPushing(kind) && (low < 0 || high <= low))
      wrongs.push({ field: 'high', given: figure(high), allowed: `must be more than its inside, ${figure(low)}; a disc has 0 inside` });
    else if (!hasNone && high <= low)
      wrongs.push({ field: 'high', given: figure(high), allowed: `must be over where it begins, ${figure(low)}` });
    else if (!isPushing(kind) && !hasNone && resolution >= high - low)
      wrongs.push({ field: 'resolution', given: figure(resolution), allowed: `must be finer than its range, ${figure(high - low)}` });
    const stands = before?.calibrationDue ?? null;
    const { today } = await shopDay({ manager });
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
      await checkPaper(manager, body.paperId);
      const { verdict, points, due = null } = body;
      await manager.insert(ToolCheck, {
        id: body.id,
        toolId: id,
        verdict,
        points,
        against: body.against.trim(),
        certificate: body.certificate?.trim() || null,
        paperId: body.paperId ?? null,
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

  /** Out of use for good: nowhere offered any more, while what was read with it stays. Or in use again, as it was. */
  async retire(id: string, { version, why = null }: RetireBody, by: PersonView): Promise<ToolView> {
    const { today } = await shopDay(this.dataSource);
    await inTransaction(this.dataSource, async (manager) => {
      const before = await this.#asRead(manager, id, version);
      if ((before.retired === null) === (why === null)) return;
      const act = why === null ? 'in use again' : 'out of use';
      const fields = changedFields({ why: before.retiredWhy ?? '' }, { why: why?.trim() ?? '' });
      await keepChange(manager, by, { what: 'tool', subject: before.tag, act }, fields);
      const gone = { retired: why === null ? null : today, retiredWhy: why?.trim() ?? null };
      await manager.update(ToolRow, id, { ...gone, lentTo: null, lentAt: null, version: version + 1 });
    });
    return this.#told(id);
  }

  /** Its photo, which may still be on its way here. */
  async picture(id: string, { version, file = null }: ToolPictureBody): Promise<ToolView> {
    await inTransaction(this.dataSource, async (manager) => {
      await this.#asRead(manager, id, version);
      await manager.update(ToolRow, id, { picture: file, version: version + 1 });
    });
    return this.#told(id);
  }

  /** The tool, held for the transaction, if nobody changed it since `version`. */
  async #asRead(manager: EntityManager, id: string, version: number): Promise<ToolRow> {
    const tool = await manager.findOne(ToolRow, { where: { id }, lock: { mode: 'pessimistic_write' } });
    if (!tool) throw notFound('tool');
    if (tool.version !== version) throw changedSince('tool', await this.one(id));
    return tool;
  }

  /** Says who has it, if nobody changed the tool since `version`: of two who take it, one has it. */
  async lend(id: string, { personId = null, version }: LendBody): Promise<ToolView> {
    await inTransaction(this.dataSource, async (manager) => {
      const { retired } = await this.#asRead(manager, id, version);
      if (retired !== null && personId !== null)
        throw badInput([{ field: 'personId', given: personId, allowed: `cannot have it: it is out of use since ${retired}` }]);
      const lentAt = personId === null ? null : (): string => 'now()';
      await manager.update(ToolRow, id, { lentTo: personId, lentAt, version: version + 1 });
    });
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

/** The same but for what working out and back leaves behind the last digit. */
function isSame(one: unknown, other: unknown): boolean {
  if (typeof one !== 'number' || typeof other !== 'number') return one === other;
  return Math.abs(one - other) <= 1e-12 * Math.max(Math.abs(one), Math.abs(other));
}

/** A tool as its form has it. */
function bodyOf({ tag, name, kind, quantity, unit, low, high, resolution, u, length, calibrationDue, everyDays }: ToolRow): ToolBody {
  return {
    ...{ tag, name, kind: kind as CribKind, quantity, unit, low, high, resolution, within: limitOfError({ u, resolution }) },
    ...(length === null ? {} : { length }),
    ...(calibrationDue === null ? {} : { due: calibrationDue }),
    ...(everyDays === null ? {} : { everyDays }),
  };
}

/** Of two who keep the same check or study at once, one does. */
async function lockTool(manager: EntityManager, id: string): Promise<boolean> {
  return (await manager.findOne(ToolRow, { where: { id }, lock: { mode: 'pessimistic_write' } })) !== null;
}

type Row = Omit<ToolRow, 'id' | 's' | 'retired' | 'retiredWhy' | 'picture' | 'lentTo' | 'lentAt' | 'version' | 'holder'>;

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
