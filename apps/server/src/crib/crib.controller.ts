import { Controller, Get, Inject } from '@nestjs/common';
import type { Tool } from '@jubb/contract';
import { JobsService } from '../jobs/jobs.service.js';

@Controller('api/v1/tools')
export class CribController {
  constructor(@Inject(JobsService) private readonly jobs: JobsService) {}

  @Get()
  list(): Promise<readonly Tool[]> {
    return this.jobs.tools();
  }
}
