import type { Tool } from '@jubb/sheet';
import { LendBody, StudyBody, ToolCheckBody, type ToolView } from '@jubb/wire';
import { Body, Controller, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Put, Req } from '@nestjs/common';
import type { Request } from 'express';
import { JobsService } from '../jobs/jobs.service.js';
import { makerOf } from '../people/access.guard.js';
import { CribService } from './crib.service.js';

@Controller('api/v1/tools')
export class CribController {
  constructor(
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(CribService) private readonly crib: CribService,
  ) {}

  @Get()
  list(): Promise<readonly Tool[]> {
    return this.jobs.tools();
  }

  @Get(':id')
  one(@Param('id', ParseUUIDPipe) id: string): Promise<ToolView> {
    return this.crib.one(id);
  }

  @Post(':id/checks')
  @HttpCode(200)
  check(@Param('id', ParseUUIDPipe) id: string, @Body() body: ToolCheckBody, @Req() request: Request): Promise<ToolView> {
    return this.crib.check(id, body, makerOf(request, undefined));
  }

  @Put(':id/holder')
  lend(@Param('id', ParseUUIDPipe) id: string, @Body() body: LendBody): Promise<ToolView> {
    return this.crib.lend(id, body);
  }

  @Post(':id/studies')
  @HttpCode(200)
  study(@Param('id', ParseUUIDPipe) id: string, @Body() body: StudyBody, @Req() request: Request): Promise<ToolView> {
    return this.crib.study(id, body, makerOf(request, undefined));
  }
}
