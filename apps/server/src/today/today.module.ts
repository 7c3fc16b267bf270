import { Module } from '@nestjs/common';
import { JobsModule } from '../jobs/jobs.module.js';
import { NoticesModule } from '../notices/notices.module.js';
import { SheetsModule } from '../sheets/sheets.module.js';
import { StreamModule } from '../stream/stream.module.js';
import { StreamController } from './stream.controller.js';
import { TodayController } from './today.controller.js';
import { TodayService } from './today.service.js';

/** Every open job as it stands now, and what pages are told of it. */
@Module({
  imports: [JobsModule, SheetsModule, NoticesModule, StreamModule],
  controllers: [TodayController, StreamController],
  providers: [TodayService],
})
export class TodayModule {}
