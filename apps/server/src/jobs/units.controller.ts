import type { UnitHistory } from '@jubb/wire';
import { Controller, Get, Inject, Param, ParseUUIDPipe } from '@nestjs/common';
import { JobsService } from './jobs.service.js';

@Controller('api/v1/units')
export class UnitsController {
  constructor(@Inject(JobsService) private readonly jobs: JobsService) {}

  @Get(':id/history')
  history(@Param('id', ParseUUIDPipe) id: string): Promise<UnitHistory> {
    return this.jobs.history(id);
  }
}
