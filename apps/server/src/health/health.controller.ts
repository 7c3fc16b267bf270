import { ENDPOINTS, type HealthView } from '@jubb/wire';
import { Controller, Inject, Res } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyReply } from 'fastify';
import { DataSource } from 'typeorm';
import type { Config } from '../config.js';
import { Person } from '../database/entities/index.js';
import { CONFIG } from '../tokens.js';

@Controller('api/v1')
export class HealthController {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Route(ENDPOINTS.health.health)
  async health(@Res({ passthrough: true }) reply: FastifyReply): Promise<HealthView> {
    const { version } = this.config;
    try {
      const isOpen = await this.dataSource.manager.exists(Person);
      return { version, database: 'up', ...(isOpen ? {} : { firstRun: true }) };
    } catch {
      void reply.code(503);
      return { version, database: 'down' };
    }
  }
}
