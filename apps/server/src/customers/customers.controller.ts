import { Controller, Get, Inject } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { CustomerLine } from '@jubb/contract';

@Controller('api/v1/customers')
export class CustomersController {
  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  /** Customers with their machines and the units that were in before. */
  @Get()
  list(): Promise<readonly CustomerLine[]> {
    return this.dataSource.query(`
      SELECT c.id, c.name, c.phone, coalesce(json_agg(m.line ORDER BY m.line->>'name') FILTER (WHERE m.line IS NOT NULL), '[]') AS machines
      FROM customer c
      LEFT JOIN (
        SELECT machine.customer_id, json_build_object('id', machine.id, 'name', machine.name, 'serial', machine.serial,
          'units', coalesce(json_agg(json_build_object('id', unit.id, 'name', unit.name, 'serial', unit.serial)) FILTER (WHERE unit.id IS NOT NULL), '[]')) AS line
        FROM machine LEFT JOIN unit ON unit.machine_id = machine.id GROUP BY machine.id
      ) m ON m.customer_id = c.id
      GROUP BY c.id ORDER BY c.name`);
  }
}
