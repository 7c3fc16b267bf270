import { Module } from '@nestjs/common';
import { EntriesModule } from '../entries/entries.module.js';
import { FilesModule } from '../files/files.module.js';
import { PeopleModule } from '../people/people.module.js';
import { QuotesController } from './quotes.controller.js';
import { QuotesService } from './quotes.service.js';

/** What the customer is offered, and says to it. */
@Module({
  imports: [EntriesModule, FilesModule, PeopleModule],
  controllers: [QuotesController],
  providers: [QuotesService],
  exports: [QuotesService],
})
export class QuotesModule {}
