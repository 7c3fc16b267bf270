import { Module } from '@nestjs/common';
import { EntriesModule } from '../entries/entries.module.js';
import { SheetsModule } from '../sheets/sheets.module.js';
import { StreamModule } from '../stream/stream.module.js';
import { JobsController } from './jobs.controller.js';
import { JobsService } from './jobs.service.js';
import { UnitsController } from './units.controller.js';

/** Jobs, the units that they are about, and what earlier ones tell. */
@Module({
  imports: [SheetsModule, EntriesModule, StreamModule],
  controllers: [JobsController, UnitsController],
  providers: [JobsService],
  exports: [JobsService],
})
export class JobsModule {}
