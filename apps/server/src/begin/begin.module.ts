import { Module } from '@nestjs/common';
import { JobsModule } from '../jobs/jobs.module.js';
import { SheetsModule } from '../sheets/sheets.module.js';
import { BeginController } from './begin.controller.js';
import { BeginService } from './begin.service.js';

/** How a shop that is just opened comes to its first job. */
@Module({ imports: [JobsModule, SheetsModule], controllers: [BeginController], providers: [BeginService] })
export class BeginModule {}
