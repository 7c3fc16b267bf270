import { cutText } from '@jubb/sheet';
import { ENDPOINTS, type CustomerLine, type CustomerView } from '@jubb/wire';
import { Controller, Inject, Param, ParseUUIDPipe, Query } from '@nestjs/common';
import { Route } from '../common/route.js';
import { DataSource } from 'typeorm';
import { notFound } from '../common/problem.js';
import { JobsService } from '../jobs/jobs.service.js';

/** Customers with their machines and the units that were in before; `where` narrows and orders them. */
const lines = (where: string): string => `
  SELECT c.id, c.name, c.phone, coalesce(json_agg(m.line ORDER BY m.line->>'name') FILTER (WHERE m.line IS NOT NULL), '[]') AS machines
  FROM customer c
  LEFT JOIN LATERAL (
    SELECT json_build_object('id', machine.id, 'name', machine.name, 'serial', machine.serial,
      'units', coalesce(json_agg(json_build_object('id', unit.id, 'name', unit.name, 'serial', unit.serial)) FILTER (WHERE unit.id IS NOT NULL), '[]')) AS line
    FROM machine LEFT JOIN unit ON unit.machine_id = machine.id WHERE machine.customer_id = c.id GROUP BY machine.id
  ) m ON true
  ${where}`;

const FOUND = lines(`
  WHERE c.id IN (
    SELECT id FROM customer WHERE name ILIKE $1 OR phone ILIKE $1
    UNION SELECT customer_id FROM machine WHERE name || ' ' || serial ILIKE $1
    UNION SELECT machine.customer_id FROM unit JOIN machine ON machine.id = unit.machine_id WHERE unit.serial ILIKE $1)
  GROUP BY c.id ORDER BY c.name LIMIT 20`);
const LATELY = lines(`
  WHERE c.id IN (SELECT customer_id FROM (SELECT machine.customer_id, max(j.number) AS last FROM
      (SELECT number, unit_id FROM job ORDER BY number DESC LIMIT 40) j JOIN unit ON unit.id = j.unit_id JOIN machine ON machine.id = unit.machine_id
      GROUP BY machine.customer_id ORDER BY last DESC LIMIT 6) lately)
  GROUP BY c.id ORDER BY c.name`);
const ONE = lines('WHERE c.id = $1 GROUP BY c.id');

@Controller('api/v1')
export class CustomersController {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(JobsService) private readonly jobs: JobsService,
  ) {}

  /** By a piece of a name, a telephone number or a serial; without one, those that were here lately. */
  @Route(ENDPOINTS.customers.list)
  list(@Query('find') find = ''): Promise<readonly CustomerLine[]> {
    const text = find.trim();
    if (text === '') return this.dataSource.query(LATELY);
    return this.dataSource.query(FOUND, [`%${cutText(text, 100).replace(/[\\%_]/gu, '\\$&')}%`]);
  }

  @Route(ENDPOINTS.customers.one)
  async one(@Param('id', ParseUUIDPipe) id: string): Promise<CustomerView> {
    const [[customer], owed] = await Promise.all([this.dataSource.query<CustomerLine[]>(ONE, [id]), this.jobs.owedBy(id)]);
    if (!customer) throw notFound('customer');
    return { ...customer, owed };
  }
}
