import { CustomerBody, ENDPOINTS, MergeBody, OwnerBody, PlacedBody, type CustomerLine, type CustomerView } from '@jubb/wire';
import { Body, Controller, Inject, Param, ParseUUIDPipe, Query, Req } from '@nestjs/common';
import type { FastifyRequest } from 'fastify';
import { personOf } from '../common/access.guard.js';
import { findText } from '../common/find-text.js';
import { Route } from '../common/route.js';
import { CustomersService } from './customers.service.js';

@Controller('api/v1')
export class CustomersController {
  constructor(@Inject(CustomersService) private readonly customers: CustomersService) {}

  @Route(ENDPOINTS.customers.list)
  list(@Query('find') find?: unknown): Promise<readonly CustomerLine[]> {
    return this.customers.list(findText(find));
  }

  @Route(ENDPOINTS.customers.one)
  one(@Param('id', ParseUUIDPipe) id: string): Promise<CustomerView> {
    return this.customers.one(id);
  }

  @Route(ENDPOINTS.customers.change)
  change(@Param('id', ParseUUIDPipe) id: string, @Body() body: CustomerBody, @Req() request: FastifyRequest): Promise<CustomerView> {
    return this.customers.change(id, body, personOf(request));
  }

  @Route(ENDPOINTS.customers.merge)
  merge(@Param('id', ParseUUIDPipe) id: string, @Body() { into }: MergeBody, @Req() request: FastifyRequest): Promise<CustomerView> {
    return this.customers.merge(id, into, personOf(request));
  }

  @Route(ENDPOINTS.customers.nameless)
  nameless(@Param('id', ParseUUIDPipe) id: string, @Req() request: FastifyRequest): Promise<CustomerView> {
    return this.customers.nameless(id, personOf(request));
  }

  @Route(ENDPOINTS.customers.owner)
  owner(@Param('id', ParseUUIDPipe) id: string, @Body() { customerId }: OwnerBody, @Req() request: FastifyRequest): Promise<CustomerView> {
    return this.customers.owner(id, customerId, personOf(request));
  }

  @Route(ENDPOINTS.customers.placed)
  placed(@Param('id', ParseUUIDPipe) id: string, @Body() { machineId }: PlacedBody, @Req() request: FastifyRequest): Promise<CustomerView> {
    return this.customers.placed(id, machineId, personOf(request));
  }
}
