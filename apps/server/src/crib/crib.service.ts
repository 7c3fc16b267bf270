import { workOut, type PersonView } from '@jubb/book';
import type { Tool } from '@jubb/sheet';
import type { LendBody, StudyBody, ToolCheckBody, ToolView, TouchedEntry } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { badInput, changedSince, notFound } from '../common/problem.js';
import { shopDay } from '../common/shop-day.js';
import { inTransaction, poolOf } from '../database/data-source.js';
import { StreamService } from '../stream/stream.service.js';

type Head = Tool & Pick<ToolView, 'everyDays' | 'holder' | 'version'>;

@Injectable()
export class CribService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  async one(id: string): Promise<ToolView> {
    const [[head], checks, studies] = await Promise.all([
      this.dataSource.query<Head[]>(
        `SELECT t.id, t.tag, t.name, t.kind, t.quantity, t.unit, t.low, t.high, t.resolution, t.u, t.s, t.length, t.calibration_due::text AS "calibrationDue",
           t.check_every_days AS "everyDays", t.version, CASE WHEN p.id IS NOT NULL THEN json_build_object('id', p.id, 'name', p.name, 'since', t.lent_at) END AS holder
         FROM tool t LEFT JOIN person p ON p.id = t.lent_to WHERE t.id = $1`,
        [id],
      ),
      this.dataSource.query<ToolView['checks']>(
        `SELECT c.id, c.verdict, c.points, c.against, c.certificate, c.due::text AS due, p.name AS person, c.kept_at AS at
         FROM tool_check c JOIN person p ON p.id = c.person_id WHERE c.tool_id = $1 ORDER BY c.kept_at DESC LIMIT 50`,
        [id],
      ),
      this.dataSource.query<ToolView['studies']>(
        `SELECT s.id, s.kept_at AS at, p.name AS person, (s.result->>'sigma')::float8 AS sigma, (s.result->>'share')::float8 AS share, (s.result->>'categories')::int AS categories
         FROM tool_study s JOIN person p ON p.id = s.person_id WHERE s.tool_id = $1 ORDER BY s.kept_at DESC LIMIT 20`,
        [id],
      ),
    ]);
    if (!head) throw notFound('tool');
    return { ...head, checks, studies, touched: checks[0]?.verdict === 'out' ? await this.#touched(id) : [] };
  }

  /** A tool found out is not offered any more; one found good is, until its next check. */
  async check(id: string, body: ToolCheckBody, person: PersonView): Promise<ToolView> {
    const { today: day } = await shopDay(this.dataSource);
    if (body.verdict === 'good' && body.due !== undefined && body.due <= day)
      throw badInput([{ field: 'due', given: body.due, allowed: 'must lie ahead' }]);
    await inTransaction(poolOf(this.dataSource), async (client) => {
      const { rowCount } = await client.query(
        `INSERT INTO tool_check (id, tool_id, verdict, points, against, certificate, due, person_id)
         SELECT $1, t.id, $3, $4, $5, $6, $7, $8 FROM tool t WHERE t.id = $2 ON CONFLICT (id) DO NOTHING`,
        [
          body.id,
          id,
          body.verdict,
          JSON.stringify(body.points),
          body.against.trim(),
          body.certificate?.trim() || null,
          body.due ?? null,
          person.id,
        ],
      );
      if (rowCount === 0) return;
      // A due day that is over keeps it from being offered at the bench.
      await client.query(
        `UPDATE tool SET calibration_due = CASE WHEN $2 = 'out' THEN $5::date - 1 ELSE $3::date END, check_every_days = coalesce($4, check_every_days), version = version + 1 WHERE id = $1`,
        [id, body.verdict, body.due ?? null, body.everyDays ?? null, day],
      );
    });
    return this.#told(id);
  }

  /** Says who has it, if nobody changed the tool since `version`: of two who take it, one has it. */
  async lend(id: string, { personId = null, version }: LendBody): Promise<ToolView> {
    const { rowCount } = await poolOf(this.dataSource).query(
      'UPDATE tool SET lent_to = $2, lent_at = CASE WHEN $2::uuid IS NULL THEN NULL ELSE now() END, version = version + 1 WHERE id = $1 AND version = $3',
      [id, personId, version],
    );
    if (rowCount === 0) throw changedSince('tool', await this.one(id));
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
    await inTransaction(poolOf(this.dataSource), async (client) => {
      const { rowCount } = await client.query(
        'INSERT INTO tool_study (id, tool_id, readings, result, person_id) SELECT $1, t.id, $3, $4, $5 FROM tool t WHERE t.id = $2 ON CONFLICT (id) DO NOTHING',
        [body.id, id, JSON.stringify(body.readings), JSON.stringify(output), person.id],
      );
      if (rowCount === 0) return;
      await client.query('UPDATE tool SET s = $2, version = version + 1 WHERE id = $1', [id, output['sigma']]);
    });
    return this.#told(id);
  }

  async #told(id: string): Promise<ToolView> {
    this.stream.tell({ type: 'stores' });
    return this.one(id);
  }

  /** Entries made with it after its last good check, of jobs that went out too. */
  #touched(id: string): Promise<readonly TouchedEntry[]> {
    return this.dataSource.query(
      `SELECT e.id AS "entryId", e.job_id AS "jobId", j.number AS "jobNumber", j.closed_at AS "closedAt", e.kind, e.step, e.taken_at AS at
       FROM entry e JOIN job j ON j.id = e.job_id
       WHERE (e.tool_id = $1 OR e.payload->>'adapterId' = $1::text)
         AND e.taken_at > coalesce((SELECT max(c.kept_at) FROM tool_check c WHERE c.tool_id = $1 AND c.verdict = 'good'), '-infinity')
         AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)
       ORDER BY e.taken_at DESC LIMIT 1000`,
      [id],
    );
  }
}
