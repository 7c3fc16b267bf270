import type { Difference, SheetFile } from '@jubb/sheet';
import { CSV_LISTS, inOrder, type CsvList } from '@jubb/sheet/editing';
import { sheetFileSchema } from '@jubb/sheet/file';
import {
  DraftBackBody,
  ImportSheetBody,
  NewSheetBody,
  SaveDraftBody,
  SettleBody,
  type IdentitySheet,
  type ImportView,
  type ProposalView,
  type RevisionLine,
} from '@jubb/wire';
import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Inject,
  Param,
  ParseEnumPipe,
  ParseUUIDPipe,
  Post,
  Put,
  Query,
  Req,
  Res,
} from '@nestjs/common';
import type { Request, Response } from 'express';
import { personOf } from '../people/access.guard.js';
import { ProposalsService } from './proposals.service.js';
import { SheetsService } from './sheets.service.js';

const CSV_LIST = Object.fromEntries(CSV_LISTS.map((list) => [list, list]));

@Controller('api/v1/sheets')
export class SheetsController {
  constructor(
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(ProposalsService) private readonly proposals: ProposalsService,
  ) {}

  /** Lines of the list (`SheetLine`); a browser that has them is told so, and is not sent them again. */
  @Get()
  async list(@Req() request: Request, @Res() response: Response): Promise<void> {
    const { version, plain, packed } = await this.sheets.listed();
    const takesPacked = request.acceptsEncodings('gzip') !== false;
    response.set({
      'Content-Type': 'application/json; charset=utf-8',
      'Cache-Control': 'private, no-cache',
      Vary: 'Accept-Encoding',
      ETag: `"${version}${takesPacked ? '-gzip' : ''}"`,
      ...(takesPacked ? { 'Content-Encoding': 'gzip' } : {}),
    });
    response.send(takesPacked ? packed : plain);
  }

  @Get('schema')
  schema(): Record<string, unknown> {
    return sheetFileSchema();
  }

  @Get('find')
  find(@Query('text') text = ''): Promise<readonly string[]> {
    return this.sheets.find(text);
  }

  @Get('identities')
  identities(@Query('family') family = ''): Promise<readonly IdentitySheet[]> {
    return this.sheets.identities(family);
  }

  /** A revision (`SheetView`), as JSON that the database made. */
  @Get(':id')
  @Header('Content-Type', 'application/json; charset=utf-8')
  one(@Param('id', ParseUUIDPipe) id: string): Promise<string> {
    return this.sheets.oneJson(id);
  }

  @Get(':id/revisions')
  revisions(@Param('id', ParseUUIDPipe) id: string): Promise<readonly RevisionLine[]> {
    return this.sheets.revisions(id);
  }

  @Get(':id/differences/:against')
  differences(@Param('id', ParseUUIDPipe) id: string, @Param('against', ParseUUIDPipe) against: string): Promise<readonly Difference[]> {
    return this.sheets.differences(id, against);
  }

  @Get(':id/file.json')
  @Header('Content-Disposition', 'attachment; filename="sheet.json"')
  async json(@Param('id', ParseUUIDPipe) id: string): Promise<SheetFile> {
    return inOrder((await this.sheets.one(id)).file);
  }

  @Get(':id/file.yaml')
  @Header('Content-Type', 'application/yaml; charset=utf-8')
  @Header('Content-Disposition', 'attachment; filename="sheet.yaml"')
  yaml(@Param('id', ParseUUIDPipe) id: string): Promise<string> {
    return this.sheets.yaml(id);
  }

  @Get(':id/csv/:list')
  @Header('Content-Type', 'text/csv; charset=utf-8')
  @Header('Content-Disposition', 'attachment; filename="sheet.csv"')
  csv(@Param('id', ParseUUIDPipe) id: string, @Param('list', new ParseEnumPipe(CSV_LIST)) list: CsvList): Promise<string> {
    return this.sheets.csv(id, list);
  }

  @Get(':id/proposals')
  proposed(@Param('id', ParseUUIDPipe) id: string): Promise<readonly ProposalView[]> {
    return this.proposals.ofSheet(id);
  }

  @Post('proposals/:entryId/settle')
  @HttpCode(204)
  settle(@Param('entryId', ParseUUIDPipe) entryId: string, @Body() body: SettleBody, @Req() request: Request): Promise<void> {
    return this.proposals.settle(entryId, body.how, personOf(request).id);
  }

  @Post('import')
  importFile(@Body() body: ImportSheetBody, @Req() request: Request): Promise<ImportView> {
    return this.sheets.importFile(body.text, personOf(request), body);
  }

  @Post()
  begin(@Body() body: NewSheetBody, @Req() request: Request): Promise<{ revisionId: string }> {
    return this.sheets.begin(body, personOf(request).id);
  }

  @Post('drafts')
  draftBack(@Body() body: DraftBackBody, @Req() request: Request): Promise<{ revisionId: string }> {
    return this.sheets.draftBack(body.file, personOf(request).id);
  }

  @Post(':id/draft')
  beginDraft(@Param('id', ParseUUIDPipe) id: string, @Req() request: Request): Promise<{ revisionId: string }> {
    return this.sheets.beginDraft(id, personOf(request).id);
  }

  @Put(':id')
  save(@Param('id', ParseUUIDPipe) id: string, @Body() body: SaveDraftBody, @Req() request: Request): Promise<{ version: number }> {
    return this.sheets.saveDraft(id, body.version, body.file, personOf(request).id);
  }

  @Delete(':id')
  @HttpCode(204)
  drop(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.sheets.dropDraft(id);
  }

  @Post(':id/approve')
  @HttpCode(204)
  approve(@Param('id', ParseUUIDPipe) id: string, @Req() request: Request): Promise<void> {
    return this.sheets.approve(id, personOf(request).id);
  }

  @Post(':id/withdraw')
  @HttpCode(204)
  withdraw(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.sheets.withdraw(id);
  }
}
