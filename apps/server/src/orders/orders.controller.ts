import { ENDPOINTS, AcceptBody, FaultBody, GoodsInBody, WantBody, type OrderView, type SupplierView } from '@jubb/wire';
import { Body, Controller, Inject, Param, ParseUUIDPipe, Req } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyRequest } from 'fastify';
import { makerOf } from '../common/access.guard.js';
import { OrdersService } from './orders.service.js';
import { SupplierStandIn } from './supplier-stand-in.js';

@Controller('api/v1')
export class OrdersController {
  constructor(
    @Inject(OrdersService) private readonly orders: OrdersService,
    @Inject(SupplierStandIn) private readonly supplier: SupplierStandIn,
  ) {}

  @Route(ENDPOINTS.orders.list)
  list(): Promise<readonly OrderView[]> {
    return this.orders.list();
  }

  @Route(ENDPOINTS.orders.want)
  want(@Body() body: WantBody): Promise<readonly OrderView[]> {
    return this.orders.want(body);
  }

  @Route(ENDPOINTS.orders.drop)
  drop(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.orders.drop(id);
  }

  @Route(ENDPOINTS.orders.send)
  send(@Param('id', ParseUUIDPipe) id: string, @Req() request: FastifyRequest): Promise<OrderView> {
    return this.orders.send(id, makerOf(request, undefined));
  }

  @Route(ENDPOINTS.orders.settle)
  settle(@Param('id', ParseUUIDPipe) id: string, @Body() { asConfirmed }: AcceptBody): Promise<OrderView> {
    return this.orders.settle(id, asConfirmed);
  }

  @Route(ENDPOINTS.orders.goodsIn)
  goodsIn(@Param('id', ParseUUIDPipe) id: string, @Body() body: GoodsInBody, @Req() request: FastifyRequest): Promise<OrderView> {
    return this.orders.goodsIn(id, body, makerOf(request, undefined));
  }

  @Route(ENDPOINTS.orders.suppliers)
  suppliers(): Promise<readonly SupplierView[]> {
    return this.supplier.list();
  }

  /** What the stand-in does wrong next. */
  @Route(ENDPOINTS.orders.fault)
  fault(@Param('name') name: string, @Body() { fault }: FaultBody): Promise<void> {
    return this.supplier.setFault(name, fault);
  }

  @Route(ENDPOINTS.orders.deliver)
  deliver(@Param('id', ParseUUIDPipe) id: string): Promise<OrderView> {
    return this.orders.deliver(id);
  }
}
