import type { JobPartsView, SealLine, ShimLine } from '@jubb/book';
import { ENDPOINTS, MoveBody, SettleCountBody, StockChangeBody, StockItemBody, type StockView } from '@jubb/wire';
import { Body, Controller, Header, Inject, Param, ParseUUIDPipe, Query, Req } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyRequest } from 'fastify';
import { shelfLabel } from '../common/label.js';
import { makerOf } from '../common/access.guard.js';
import { findText } from '../common/find-text.js';
import { StoresService } from './stores.service.js';

const MOST_NUMBERS = 600;

@Controller('api/v1')
export class StoresController {
  constructor(@Inject(StoresService) private readonly stores: StoresService) {}

  /** A page of stock lines (`StockLine`) by number, as JSON that the database made. */
  @Header('Content-Type', 'application/json; charset=utf-8')
  @Route(ENDPOINTS.stock.list)
  list(@Query('find') find?: string, @Query('after') after?: string, @Query('short') short?: string): Promise<string> {
    return this.stores.listJson(findText(find), after === undefined ? undefined : textOf(after), short === 'yes');
  }

  /** Seals and rings that are free and in date, by their size. */
  @Route(ENDPOINTS.stock.seals)
  seals(): Promise<readonly SealLine[]> {
    return this.stores.seals();
  }

  /** All shims, the thinnest first: what a pack is picked from. */
  @Route(ENDPOINTS.stock.shims)
  shims(): Promise<readonly ShimLine[]> {
    return this.stores.shims();
  }

  @Route(ENDPOINTS.stock.add)
  add(@Body() body: StockItemBody): Promise<StockView> {
    return this.stores.add(body);
  }

  @Route(ENDPOINTS.stock.one)
  one(@Param('id', ParseUUIDPipe) id: string): Promise<StockView> {
    return this.stores.one(id);
  }

  /** Label of the shelf, with the number as a code for a scanner. */
  @Header('Content-Type', 'image/svg+xml; charset=utf-8')
  @Route(ENDPOINTS.stock.label)
  async label(@Param('id', ParseUUIDPipe) id: string): Promise<string> {
    return shelfLabel(await this.stores.one(id), await this.stores.shopName());
  }

  @Route(ENDPOINTS.stock.change)
  change(@Param('id', ParseUUIDPipe) id: string, @Body() body: StockChangeBody): Promise<StockView> {
    return this.stores.change(id, body);
  }

  @Route(ENDPOINTS.stock.move)
  move(@Param('id', ParseUUIDPipe) id: string, @Body() body: MoveBody, @Req() request: FastifyRequest): Promise<StockView> {
    return this.stores.move(id, body, makerOf(request, undefined));
  }

  @Route(ENDPOINTS.stock.settleCount)
  settleCount(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() { take }: SettleCountBody,
    @Req() request: FastifyRequest,
  ): Promise<StockView> {
    return this.stores.settleCount(id, take, makerOf(request, undefined));
  }

  /** Numbers and designations parted by line feeds: a number may hold anything else. */
  @Route(ENDPOINTS.stock.forJob)
  forJob(
    @Param('id', ParseUUIDPipe) id: string,
    @Query('numbers') numbers?: string,
    @Query('designations') designations?: string,
  ): Promise<JobPartsView> {
    return this.stores.forJob(id, linesOf(numbers), linesOf(designations));
  }
}

function textOf(given: unknown): string {
  return typeof given === 'string' ? given : '';
}

function linesOf(given: unknown): readonly string[] {
  return textOf(given).split('\n').filter(Boolean).slice(0, MOST_NUMBERS);
}
