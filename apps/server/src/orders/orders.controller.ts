import type { SupplierOffer } from '@jubb/book';
import {
  AcceptBody,
  ConfirmBody,
  ENDPOINTS,
  FaultBody,
  GoodsInBody,
  OfferBody,
  SupplierBody,
  SupplierChangeBody,
  WantBody,
  type OrderView,
  type SupplierView,
} from '@jubb/wire';
import { Body, Controller, Inject, Param, ParseUUIDPipe, Req } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyRequest } from 'fastify';
import { makerOf, personOf } from '../common/access.guard.js';
import { OrdersService } from './orders.service.js';
import { SuppliersService } from './suppliers.service.js';
import { SupplierStandIn } from './supplier-stand-in.js';

@Controller('api/v1')
export class OrdersController {
  constructor(
    @Inject(OrdersService) private readonly orders: OrdersService,
    @Inject(SuppliersService) private readonly suppliers: SuppliersService,
    @Inject(SupplierStandIn) private readonly standIn: SupplierStandIn,
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

  @Route(ENDPOINTS.orders.confirm)
  confirm(@Param('id', ParseUUIDPipe) id: string, @Body() { lines }: ConfirmBody): Promise<OrderView> {
    return this.orders.confirm(id, lines);
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
  listSuppliers(): Promise<readonly SupplierView[]> {
    return this.suppliers.list();
  }

  @Route(ENDPOINTS.orders.addSupplier)
  addSupplier(@Body() body: SupplierBody, @Req() request: FastifyRequest): Promise<SupplierView> {
    return this.suppliers.add(body, personOf(request));
  }

  @Route(ENDPOINTS.orders.changeSupplier)
  changeSupplier(@Param('name') name: string, @Body() body: SupplierChangeBody, @Req() request: FastifyRequest): Promise<SupplierView> {
    return this.suppliers.change(name, body, personOf(request));
  }

  @Route(ENDPOINTS.orders.catalogue)
  catalogue(@Param('name') name: string): Promise<readonly SupplierOffer[]> {
    return this.suppliers.catalogue(name);
  }

  @Route(ENDPOINTS.orders.keepOffer)
  keepOffer(@Param('name') name: string, @Body() body: OfferBody): Promise<readonly SupplierOffer[]> {
    return this.suppliers.keepOffer(name, body);
  }

  @Route(ENDPOINTS.orders.dropOffer)
  dropOffer(@Param('name') name: string, @Param('number') number: string): Promise<readonly SupplierOffer[]> {
    return this.suppliers.dropOffer(name, number);
  }

  /** What the stand-in does wrong next. */
  @Route(ENDPOINTS.orders.fault)
  fault(@Param('name') name: string, @Body() { fault }: FaultBody): Promise<void> {
    return this.standIn.setFault(name, fault);
  }

  @Route(ENDPOINTS.orders.deliver)
  deliver(@Param('id', ParseUUIDPipe) id: string): Promise<OrderView> {
    return this.orders.deliver(id);
  }
}
