import { Module } from '@nestjs/common';
import { EntriesModule } from '../entries/entries.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { PeopleModule } from '../people/people.module.js';
import { SheetsModule } from '../sheets/sheets.module.js';
import { StoresModule } from '../stores/stores.module.js';
import { DemoController } from './demo.controller.js';
import { Demo } from './demo.js';
import { DemoThree } from './demo-three.js';
import { DemoYears } from './demo-years.js';

/** The invented shop, put into a database that is empty. */
@Module({
  imports: [PeopleModule, SheetsModule, JobsModule, EntriesModule, StoresModule],
  controllers: [DemoController],
  providers: [Demo, DemoThree, DemoYears],
})
export class DemoModule {}
