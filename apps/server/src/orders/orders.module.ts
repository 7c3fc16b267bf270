import { Module } from '@nestjs/common';
import { EntriesModule } from '../entries/entries.module.js';
import { OutboxModule } from '../outbox/outbox.module.js';
import { StoresModule } from '../stores/stores.module.js';
import { StreamModule } from '../stream/stream.module.js';
import { OrdersController } from './orders.controller.js';
import { OrdersService } from './orders.service.js';
import { SuppliersService } from './suppliers.service.js';
import { SupplierStandIn } from './supplier-stand-in.js';

/** What is ordered, and what comes in of it. */
@Module({
  imports: [StoresModule, EntriesModule, StreamModule, OutboxModule],
  controllers: [OrdersController],
  providers: [OrdersService, SuppliersService, SupplierStandIn],
  exports: [SuppliersService],
})
export class OrdersModule {}
