import { Module } from '@nestjs/common';
import { JobsModule } from '../jobs/jobs.module.js';
import { CustomersController } from './customers.controller.js';
import { WayInController } from './way-in.controller.js';

/** Whose machines they are, how one gets at their units, and what they still owe. */
@Module({ imports: [JobsModule], controllers: [CustomersController, WayInController] })
export class CustomersModule {}
