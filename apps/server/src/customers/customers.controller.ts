import { cutText } from '@jubb/sheet';
import { ENDPOINTS, type CustomerLine, type CustomerView } from '@jubb/wire';
import { Controller, Inject, Param, ParseUUIDPipe, Query } from '@nestjs/common';
import { Route } from '../common/route.js';
import { DataSource, In } from 'typeorm';
import { notFound } from '../common/problem.js';
import { anywhere, ask } from '../database/data-source.js';
import { Customer } from '../database/entities/index.js';
import { JobsService } from '../jobs/jobs.service.js';
import { FOUND, LATELY } from './customers.sql.js';

@Controller('api/v1')
export class CustomersController {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(JobsService) private readonly jobs: JobsService,
  ) {}

  /** By a piece of a name, a telephone number or a serial; without one, those that were here lately. */
  @Route(ENDPOINTS.customers.list)
  async list(@Query('find') find = ''): Promise<readonly CustomerLine[]> {
    const { manager } = this.dataSource;
    const text = find.trim();
    const found = await (text === ''
      ? ask<{ id: string }>(manager, LATELY)
      : ask<{ id: string }>(manager, FOUND, anywhere(cutText(text, 100))));
    return this.#lines(found.map(({ id }) => id));
  }

  @Route(ENDPOINTS.customers.one)
  async one(@Param('id', ParseUUIDPipe) id: string): Promise<CustomerView> {
    const [[customer], owed] = await Promise.all([this.#lines([id]), this.jobs.owedBy(id)]);
    if (!customer) throw notFound('customer');
    return { ...customer, owed };
  }

  /** Customers by name, with their machines and the units that were in before. */
  async #lines(ids: readonly string[]): Promise<readonly CustomerLine[]> {
    const customers = await this.dataSource.manager.find(Customer, {
      where: { id: In(ids) },
      relations: { machines: { units: true } },
      order: { name: 'ASC', machines: { name: 'ASC', units: { name: 'ASC' } } },
    });
    return customers.map(({ id, name, phone, machines }) => ({
      id,
      name,
      phone,
      machines: machines.map((machine) => ({
        id: machine.id,
        name: machine.name,
        serial: machine.serial,
        units: machine.units.map((unit) => ({ id: unit.id, name: unit.name, serial: unit.serial })),
      })),
    }));
  }
}
