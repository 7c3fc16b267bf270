import { Module } from '@nestjs/common';
import { BenchesModule } from '../benches/benches.module.js';
import { CribModule } from '../crib/crib.module.js';
import { CustomersModule } from '../customers/customers.module.js';
import { OrdersModule } from '../orders/orders.module.js';
import { PeopleModule } from '../people/people.module.js';
import { StoresModule } from '../stores/stores.module.js';
import { ListsController } from './lists.controller.js';
import { ListsService } from './lists.service.js';

/** Lists of the shop that come in as a table. */
@Module({
  imports: [BenchesModule, CribModule, CustomersModule, OrdersModule, PeopleModule, StoresModule],
  controllers: [ListsController],
  providers: [ListsService],
})
export class ListsModule {}
