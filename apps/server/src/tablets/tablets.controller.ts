import { ENDPOINTS, TabletBody, type TabletLine, type TabletPeople } from '@jubb/wire';
import { Body, Controller, Inject, Param, ParseUUIDPipe, Req } from '@nestjs/common';
import { personOf } from '../common/access.guard.js';
import { Route } from '../common/route.js';
import type { FastifyRequest } from 'fastify';
import { ProblemError, notFound } from '../common/problem.js';
import { TabletsService } from './tablets.service.js';

/** What a session is called outside. */
const MARK = /^[\w-]{43}$/u;

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

  @Route(ENDPOINTS.tablet.list)
  list(@Req() request: FastifyRequest): Promise<readonly TabletLine[]> {
    return this.tablets.list(request.session.sessionId);
  }

  @Route(ENDPOINTS.tablet.forget)
  async forget(@Param('id', ParseUUIDPipe) id: string, @Req() request: FastifyRequest): Promise<readonly TabletLine[]> {
    await this.tablets.forget(id, personOf(request));
    return this.list(request);
  }

  @Route(ENDPOINTS.tablet.endLogIn)
  async endLogIn(@Param('id') mark: string, @Req() request: FastifyRequest): Promise<readonly TabletLine[]> {
    if (!MARK.test(mark)) throw notFound('log-in');
    await this.tablets.endLogIn(mark, personOf(request));
    return this.list(request);
  }
}
