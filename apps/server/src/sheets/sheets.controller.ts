import { Body, Controller, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Req } from '@nestjs/common';
import { ImportSheetBody, sheetFileSchema, type SheetLine, type SheetView } from '@jubb/contract';
import type { Request } from 'express';
import { personOf } from '../people/access.guard.js';
import { SheetsService } from './sheets.service.js';

@Controller('api/v1/sheets')
export class SheetsController {
  constructor(@Inject(SheetsService) private readonly sheets: SheetsService) {}

  @Get()
  list(): Promise<readonly SheetLine[]> {
    return this.sheets.list();
  }

  @Get('schema')
  schema(): Record<string, unknown> {
    return sheetFileSchema();
  }

  @Get(':id')
  one(@Param('id', ParseUUIDPipe) id: string): Promise<SheetView> {
    return this.sheets.one(id);
  }

  @Post('import')
  importFile(@Body() body: ImportSheetBody): Promise<{ revisionId: string; revision: number; key: string }> {
    return this.sheets.importFile(body.text);
  }

  @Post(':id/approve')
  @HttpCode(204)
  approve(@Param('id', ParseUUIDPipe) id: string, @Req() request: Request): Promise<void> {
    return this.sheets.approve(id, personOf(request).id);
  }
}
