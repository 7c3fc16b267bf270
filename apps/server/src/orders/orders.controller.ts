import { AcceptBody, FaultBody, GoodsInBody, WantBody, type OrderView, type SupplierView } from '@jubb/wire';
import { Body, Controller, Delete, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Put, Req } from '@nestjs/common';
import type { Request } from 'express';
import { makerOf } from '../people/access.guard.js';
import { OrdersService } from './orders.service.js';
import { SupplierStandIn } from './supplier-stand-in.js';

@Controller('api/v1')
export class OrdersController {
  constructor(
    @Inject(OrdersService) private readonly orders: OrdersService,
    @Inject(SupplierStandIn) private readonly supplier: SupplierStandIn,
  ) {}

  @Get('orders')
  list(): Promise<readonly OrderView[]> {
    return this.orders.list();
  }

  @Post('orders/lines')
  @HttpCode(200)
  want(@Body() body: WantBody): Promise<OrderView> {
    return this.orders.want(body);
  }

  @Delete('orders/lines/:id')
  @HttpCode(204)
  drop(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.orders.drop(id);
  }

  @Post('orders/:id/send')
  @HttpCode(200)
  send(@Param('id', ParseUUIDPipe) id: string, @Req() request: Request): Promise<OrderView> {
    return this.orders.send(id, makerOf(request, undefined));
  }

  @Post('orders/:id/settle')
  @HttpCode(200)
  settle(@Param('id', ParseUUIDPipe) id: string, @Body() { asConfirmed }: AcceptBody): Promise<OrderView> {
    return this.orders.settle(id, asConfirmed);
  }

  @Post('orders/:id/goods-in')
  @HttpCode(200)
  goodsIn(@Param('id', ParseUUIDPipe) id: string, @Body() body: GoodsInBody, @Req() request: Request): Promise<OrderView> {
    return this.orders.goodsIn(id, body, makerOf(request, undefined));
  }

  @Get('suppliers')
  suppliers(): Promise<readonly SupplierView[]> {
    return this.supplier.list();
  }

  /** What the stand-in does wrong next. */
  @Put('suppliers/:name/fault')
  @HttpCode(204)
  fault(@Param('name') name: string, @Body() { fault }: FaultBody): Promise<void> {
    return this.supplier.setFault(name, fault);
  }

  @Post('orders/:id/deliver')
  @HttpCode(200)
  deliver(@Param('id', ParseUUIDPipe) id: string): Promise<OrderView> {
    return this.orders.deliver(id);
  }
}
