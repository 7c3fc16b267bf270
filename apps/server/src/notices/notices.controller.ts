import { ENDPOINTS } from '@jubb/wire';
import { Controller, Inject, Param, ParseUUIDPipe, Req } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyRequest } from 'fastify';
import { personOf } from '../common/access.guard.js';
import { NoticesService } from './notices.service.js';

@Controller('api/v1')
export class NoticesController {
  constructor(@Inject(NoticesService) private readonly notices: NoticesService) {}

  /** Read and put away, by whoever it was told to. */
  @Route(ENDPOINTS.notices.putAway)
  putAway(@Param('id', ParseUUIDPipe) id: string, @Req() request: FastifyRequest): Promise<void> {
    return this.notices.putAway(id, personOf(request).id);
  }
}
