import { Controller, Get, Inject, Req } from '@nestjs/common';
import type { TodayView } from '@jubb/contract';
import type { Request } from 'express';
import { personOf } from '../people/access.guard.js';
import { TodayService } from './today.service.js';

@Controller('api/v1/today')
export class TodayController {
  constructor(@Inject(TodayService) private readonly today: TodayService) {}

  /** Every open job with its next act: what can be done now, and what waits for what. */
  @Get()
  view(@Req() request: Request): Promise<TodayView> {
    return this.today.view(personOf(request));
  }
}
