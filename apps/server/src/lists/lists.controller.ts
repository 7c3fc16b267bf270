import { BringBody, ENDPOINTS, type BroughtView } from '@jubb/wire';
import { Body, Controller, Inject, Req } from '@nestjs/common';
import type { FastifyRequest } from 'fastify';
import { personOf } from '../common/access.guard.js';
import { Route } from '../common/route.js';
import { ListsService } from './lists.service.js';

@Controller('api/v1')
export class ListsController {
  constructor(@Inject(ListsService) private readonly lists: ListsService) {}

  @Route(ENDPOINTS.shop.bring)
  bring(@Body() body: BringBody, @Req() request: FastifyRequest): Promise<BroughtView> {
    return this.lists.bring(body, personOf(request));
  }
}
