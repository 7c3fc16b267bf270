import { ENDPOINTS, WayInBody, type WayInView } from '@jubb/wire';
import { Body, Controller, Inject, Param, ParseUUIDPipe, Req } from '@nestjs/common';
import type { FastifyRequest } from 'fastify';
import { DataSource, Not } from 'typeorm';
import { personOf } from '../common/access.guard.js';
import { changedSince, notFound } from '../common/problem.js';
import { Route } from '../common/route.js';
import { Machine, WayIn } from '../database/entities/index.js';

/** What is in the way of the units of a machine: kept once, and the same for each of them. */
@Controller('api/v1')
export class WayInController {
  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  @Route(ENDPOINTS.machines.wayIn)
  async wayIn(@Param('id', ParseUUIDPipe) id: string): Promise<WayInView> {
    const machine = await this.dataSource.manager.findOne(Machine, { where: { id }, relations: { units: true } });
    if (!machine) throw notFound('machine');
    const { name, serial, units } = machine;
    const ways = this.dataSource.getRepository(WayIn);
    const own = await ways.findOne({ where: { machineId: id }, relations: { editor: true } });
    const like =
      own === null
        ? await ways.findOne({
            where: { machineId: Not(id), machine: { name } },
            relations: { machine: true },
            order: { editedAt: 'DESC' },
          })
        : null;
    return {
      machine: { id, name, serial },
      units: [...new Set(units.map((unit) => unit.name))].toSorted(),
      lines: own?.lines ?? [],
      version: own?.version ?? 0,
      editedBy: own?.editor.name ?? null,
      editedAt: own?.editedAt.toISOString() ?? null,
      like: like && { serial: like.machine.serial, lines: like.lines },
    };
  }

  /** Keeps it, if nobody else did since it was read. */
  @Route(ENDPOINTS.machines.keepWayIn)
  async keep(
    @Param('id', ParseUUIDPipe) machineId: string,
    @Body() { version, lines }: WayInBody,
    @Req() request: FastifyRequest,
  ): Promise<WayInView> {
    if (!(await this.dataSource.manager.existsBy(Machine, { id: machineId }))) throw notFound('machine');
    const ways = this.dataSource.getRepository(WayIn);
    const content = { lines, version: version + 1, editedBy: personOf(request).id, editedAt: new Date() };
    const isKept =
      version === 0 ? await this.#begin({ machineId, ...content }) : (await ways.update({ machineId, version }, content)).affected === 1;
    if (!isKept) throw changedSince('way in', await this.wayIn(machineId));
    return this.wayIn(machineId);
  }

  /** Of two who begin one at the same time, one does. */
  async #begin(row: Omit<WayIn, 'machine' | 'editor'>): Promise<boolean> {
    const { raw } = await this.dataSource
      .createQueryBuilder()
      .insert()
      .into(WayIn)
      .values(row)
      .orIgnore()
      .returning('machine_id')
      .execute();
    return (raw as readonly unknown[]).length > 0;
  }
}
