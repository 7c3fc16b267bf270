import { Controller, Get, Inject, Res } from '@nestjs/common';
import type { HealthView } from '@jubb/contract';
import type { Response } from 'express';
import { DataSource } from 'typeorm';
import type { Config } from '../config.js';
import { CONFIG } from '../tokens.js';

@Controller('api/v1/health')
export class HealthController {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Get()
  async health(@Res({ passthrough: true }) response: Response): Promise<HealthView> {
    const database = await this.dataSource.query('SELECT 1').then(
      () => 'up' as const,
      () => 'down' as const,
    );
    response.status(database === 'up' ? 200 : 503);
    return { version: this.config.version, database };
  }
}
