import { Module } from '@nestjs/common';
import { BenchesModule } from '../benches/benches.module.js';
import { SheetsModule } from '../sheets/sheets.module.js';
import { StoresModule } from '../stores/stores.module.js';
import { StreamModule } from '../stream/stream.module.js';
import { EntriesService } from './entries.service.js';
import { KeeperService } from './keeper.service.js';
import { PinsService } from './pins.service.js';

/** The book of each job: what is kept, checked and chained. */
@Module({
  imports: [BenchesModule, SheetsModule, StoresModule, StreamModule],
  providers: [EntriesService, KeeperService, PinsService],
  exports: [EntriesService],
})
export class EntriesModule {}
