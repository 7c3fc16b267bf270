import { Module } from '@nestjs/common';
import { StreamModule } from '../stream/stream.module.js';
import { PapersController } from './papers.controller.js';
import { ProposalsService } from './proposals.service.js';
import { SheetWork } from './sheet-work.js';
import { SheetsController } from './sheets.controller.js';
import { SheetsService } from './sheets.service.js';

/** What is known about each model: sheets, their drafts and papers, and what is proposed for them. */
@Module({
  imports: [StreamModule],
  controllers: [SheetsController, PapersController],
  providers: [SheetsService, ProposalsService, SheetWork],
  exports: [SheetsService, SheetWork],
})
export class SheetsModule {}
