import { Module } from '@nestjs/common';
import { FilesModule } from '../files/files.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { ReportsController } from './reports.controller.js';

/** What a job gives out on paper. */
@Module({ imports: [FilesModule, JobsModule], controllers: [ReportsController] })
export class ReportsModule {}
