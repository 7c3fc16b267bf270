import { ENDPOINTS, TabletBody, type TabletPeople } from '@jubb/wire';
import { Body, Controller, Inject, Req } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyRequest } from 'fastify';
import { ProblemError } from '../common/problem.js';
import { TabletsService } from './tablets.service.js';

@Controller('api/v1')
export class TabletsController {
  constructor(@Inject(TabletsService) private readonly tablets: TabletsService) {}

  /** This tablet, and who may take it over by PIN. */
  @Route(ENDPOINTS.tablet.people)
  people(@Req() request: FastifyRequest): Promise<TabletPeople> {
    return this.tablets.people(request);
  }

  @Route(ENDPOINTS.tablet.name)
  async name(@Body() { name }: TabletBody, @Req() request: FastifyRequest): Promise<void> {
    const tablet = await this.tablets.of(request);
    if (!tablet) throw new ProblemError('tablet-unknown');
    await this.tablets.name(tablet.id, name);
  }
}
