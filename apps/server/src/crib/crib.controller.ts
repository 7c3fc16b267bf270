import type { Tool } from '@jubb/sheet';
import {
  ENDPOINTS,
  LendBody,
  RetireBody,
  StudyBody,
  ToolBody,
  ToolChangeBody,
  ToolCheckBody,
  ToolPictureBody,
  type MadeTool,
  type ToolView,
} from '@jubb/wire';
import { Body, Controller, Inject, Param, ParseUUIDPipe, Req } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyRequest } from 'fastify';
import { JobsService } from '../jobs/jobs.service.js';
import { makerOf } from '../common/access.guard.js';
import { CribService } from './crib.service.js';

@Controller('api/v1')
export class CribController {
  constructor(
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(CribService) private readonly crib: CribService,
  ) {}

  @Route(ENDPOINTS.tools.list)
  list(): Promise<readonly Tool[]> {
    return this.jobs.tools();
  }

  @Route(ENDPOINTS.tools.made)
  made(): Promise<readonly MadeTool[]> {
    return this.jobs.madeTools();
  }

  @Route(ENDPOINTS.tools.one)
  one(@Param('id', ParseUUIDPipe) id: string): Promise<ToolView> {
    return this.crib.one(id);
  }

  @Route(ENDPOINTS.tools.add)
  add(@Body() body: ToolBody, @Req() request: FastifyRequest): Promise<ToolView> {
    return this.crib.add(body, makerOf(request, undefined));
  }

  @Route(ENDPOINTS.tools.change)
  change(@Param('id', ParseUUIDPipe) id: string, @Body() body: ToolChangeBody, @Req() request: FastifyRequest): Promise<ToolView> {
    return this.crib.change(id, body, makerOf(request, undefined));
  }

  @Route(ENDPOINTS.tools.check)
  check(@Param('id', ParseUUIDPipe) id: string, @Body() body: ToolCheckBody, @Req() request: FastifyRequest): Promise<ToolView> {
    return this.crib.check(id, body, makerOf(request, undefined));
  }

  @Route(ENDPOINTS.tools.lend)
  lend(@Param('id', ParseUUIDPipe) id: string, @Body() body: LendBody): Promise<ToolView> {
    return this.crib.lend(id, body);
  }

  @Route(ENDPOINTS.tools.retire)
  retire(@Param('id', ParseUUIDPipe) id: string, @Body() body: RetireBody, @Req() request: FastifyRequest): Promise<ToolView> {
    return this.crib.retire(id, body, makerOf(request, undefined));
  }

  @Route(ENDPOINTS.tools.picture)
  picture(@Param('id', ParseUUIDPipe) id: string, @Body() body: ToolPictureBody): Promise<ToolView> {
    return this.crib.picture(id, body);
  }

  @Route(ENDPOINTS.tools.study)
  study(@Param('id', ParseUUIDPipe) id: string, @Body() body: StudyBody, @Req() request: FastifyRequest): Promise<ToolView> {
    return this.crib.study(id, body, makerOf(request, undefined));
  }
}
