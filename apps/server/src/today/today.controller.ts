import { ENDPOINTS } from '@jubb/wire';
import { Controller, Header, Inject, Req } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyRequest } from 'fastify';
import { personOf } from '../common/access.guard.js';
import { TodayService } from './today.service.js';

@Controller('api/v1')
export class TodayController {
  constructor(@Inject(TodayService) private readonly today: TodayService) {}

  /** Every open job with its next act (`TodayView`): what can be done now, and what waits for what. */
  @Header('Content-Type', 'application/json; charset=utf-8')
  @Route(ENDPOINTS.today.view)
  view(@Req() request: FastifyRequest): Promise<string> {
    return this.today.viewJson(personOf(request));
  }
}
