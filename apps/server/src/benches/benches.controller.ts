import type { Bench } from '@jubb/book';
import { ENDPOINTS, BenchBody, BenchChangeBody, StandBody } from '@jubb/wire';
import { Body, Controller, Inject, Param, ParseUUIDPipe, Req } from '@nestjs/common';
import type { FastifyRequest } from 'fastify';
import { personOf } from '../common/access.guard.js';
import { Route } from '../common/route.js';
import { BenchesService } from './benches.service.js';

@Controller('api/v1')
export class BenchesController {
  constructor(@Inject(BenchesService) private readonly benches: BenchesService) {}

  @Route(ENDPOINTS.benches.list)
  list(): Promise<readonly Bench[]> {
    return this.benches.all();
  }

  @Route(ENDPOINTS.benches.add)
  add(@Body() body: BenchBody, @Req() request: FastifyRequest): Promise<Bench> {
    return this.benches.add(body, personOf(request));
  }

  @Route(ENDPOINTS.benches.change)
  change(@Param('id', ParseUUIDPipe) id: string, @Body() body: BenchChangeBody, @Req() request: FastifyRequest): Promise<Bench> {
    return this.benches.change(id, body, personOf(request));
  }

  @Route(ENDPOINTS.benches.drop)
  drop(@Param('id', ParseUUIDPipe) id: string, @Req() request: FastifyRequest): Promise<void> {
    return this.benches.drop(id, personOf(request));
  }

  /** Where the unit of a job stands now. */
  @Route(ENDPOINTS.benches.stand)
  stand(@Param('id', ParseUUIDPipe) jobId: string, @Body() { benchId = null }: StandBody): Promise<readonly Bench[]> {
    return this.benches.stand(jobId, benchId);
  }
}
