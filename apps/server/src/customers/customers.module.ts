import { Module } from '@nestjs/common';
import { JobsModule } from '../jobs/jobs.module.js';
import { CustomersController } from './customers.controller.js';

/** Whose machines they are, and what those still owe. */
@Module({ imports: [JobsModule], controllers: [CustomersController] })
export class CustomersModule {}
