import { Module } from '@nestjs/common';
import { JobsModule } from '../jobs/jobs.module.js';
import { ReportsController } from './reports.controller.js';

/** What a job gives out on paper. */
@Module({ imports: [JobsModule], controllers: [ReportsController] })
export class ReportsModule {}
