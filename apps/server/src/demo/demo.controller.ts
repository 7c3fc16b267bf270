import { ENDPOINTS, type SightLine } from '@jubb/wire';
import { Controller, Inject } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Route } from '../common/route.js';
import { DemoSight } from '../database/entities/index.js';

@Controller('api/v1')
export class DemoController {
  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  /** Where to look first; nothing in a shop of one's own. */
  @Route(ENDPOINTS.demo.sights)
  async sights(): Promise<SightLine[]> {
    const sights = await this.dataSource.manager.find(DemoSight, { order: { place: 'ASC' } });
    return sights.map(({ words, path }) => ({ words, path }));
  }
}
