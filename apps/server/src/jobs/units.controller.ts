import { ENDPOINTS, type UnitHistory } from '@jubb/wire';
import { Controller, Inject, Param, ParseUUIDPipe } from '@nestjs/common';
import { Route } from '../common/route.js';
import { JobsService } from './jobs.service.js';

@Controller('api/v1')
export class UnitsController {
  constructor(@Inject(JobsService) private readonly jobs: JobsService) {}

  @Route(ENDPOINTS.units.history)
  history(@Param('id', ParseUUIDPipe) id: string): Promise<UnitHistory> {
    return this.jobs.history(id);
  }
}
