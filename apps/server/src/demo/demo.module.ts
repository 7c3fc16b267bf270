import { Module } from '@nestjs/common';
import { EntriesModule } from '../entries/entries.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { PeopleModule } from '../people/people.module.js';
import { SheetsModule } from '../sheets/sheets.module.js';
import { StoresModule } from '../stores/stores.module.js';
import { Demo } from './demo.js';

/** The invented shop, put into a database that is empty. */
@Module({ imports: [PeopleModule, SheetsModule, JobsModule, EntriesModule, StoresModule], providers: [Demo] })
export class DemoModule {}
