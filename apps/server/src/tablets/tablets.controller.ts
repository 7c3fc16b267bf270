import { TabletBody, type TabletPeople } from '@jubb/wire';
import { Body, Controller, Get, HttpCode, Inject, Patch, Req } from '@nestjs/common';
import type { Request } from 'express';
import { ProblemError } from '../common/problem.js';
import { TabletsService } from './tablets.service.js';

@Controller('api/v1/tablet')
export class TabletsController {
  constructor(@Inject(TabletsService) private readonly tablets: TabletsService) {}

  /** This tablet, and who may take it over by PIN. */
  @Get()
  people(@Req() request: Request): Promise<TabletPeople> {
    return this.tablets.people(request);
  }

  @Patch()
  @HttpCode(204)
  async name(@Body() { name }: TabletBody, @Req() request: Request): Promise<void> {
    const tablet = await this.tablets.of(request);
    if (!tablet) throw new ProblemError('tablet-unknown');
    await this.tablets.name(tablet.id, name);
  }
}
