import { Module } from '@nestjs/common';
import { JobsModule } from '../jobs/jobs.module.js';
import { CustomersController } from './customers.controller.js';
import { CustomersService } from './customers.service.js';
import { QuotesModule } from '../quotes/quotes.module.js';
import { StreamModule } from '../stream/stream.module.js';
import { WayInController } from './way-in.controller.js';

/** Whose machines they are, how one gets at their units, and what they still owe. */
@Module({
  imports: [JobsModule, QuotesModule, StreamModule],
  controllers: [CustomersController, WayInController],
  providers: [CustomersService],
  exports: [CustomersService],
})
export class CustomersModule {}
