import type { Difference, SheetFile } from '@jubb/sheet';
import { CSV_LISTS, inOrder, type CsvList } from '@jubb/sheet/editing';
import { sheetFileSchema } from '@jubb/sheet/file';
import {
  ENDPOINTS,
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
import { Body, Controller, Header, Inject, Param, ParseEnumPipe, ParseUUIDPipe, Query, Req, Res } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { personOf } from '../common/access.guard.js';
import { ProposalsService } from './proposals.service.js';
import { SheetsService } from './sheets.service.js';

const CSV_LIST = Object.fromEntries(CSV_LISTS.map((list) => [list, list]));

@Controller('api/v1')
export class SheetsController {
  constructor(
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(ProposalsService) private readonly proposals: ProposalsService,
  ) {}

  /** Lines of the list (`SheetLine`); a browser that has them is told so, and is not sent them again. */
  @Route(ENDPOINTS.sheets.list)
  async list(@Req() request: FastifyRequest, @Res() reply: FastifyReply): Promise<void> {
    const { version, plain, packed } = await this.sheets.listed();
    const takesPacked = request.accepts().encoding(['gzip']) !== false;
    const tag = `"${version}${takesPacked ? '-gzip' : ''}"`;
    void reply.headers({ 'Cache-Control': 'private, no-cache', Vary: 'Accept-Encoding', ETag: tag });
    if (request.headers['if-none-match']?.includes(tag)) return reply.code(304).send();
    void reply.headers({ 'Content-Type': 'application/json; charset=utf-8', ...(takesPacked ? { 'Content-Encoding': 'gzip' } : {}) });
    await reply.send(takesPacked ? packed : plain);
  }

  @Route(ENDPOINTS.sheets.schema)
  schema(): Record<string, unknown> {
    return sheetFileSchema();
  }

  @Route(ENDPOINTS.sheets.find)
  find(@Query('text') text = ''): Promise<readonly string[]> {
    return this.sheets.find(text);
  }

  @Route(ENDPOINTS.sheets.identities)
  identities(@Query('family') family = ''): Promise<readonly IdentitySheet[]> {
    return this.sheets.identities(family);
  }

  /** A revision (`SheetView`), as JSON that the database made. */
  @Header('Content-Type', 'application/json; charset=utf-8')
  @Route(ENDPOINTS.sheets.one)
  one(@Param('id', ParseUUIDPipe) id: string): Promise<string> {
    return this.sheets.oneJson(id);
  }

  @Route(ENDPOINTS.sheets.revisions)
  revisions(@Param('id', ParseUUIDPipe) id: string): Promise<readonly RevisionLine[]> {
    return this.sheets.revisions(id);
  }

  @Route(ENDPOINTS.sheets.differences)
  differences(@Param('id', ParseUUIDPipe) id: string, @Param('against', ParseUUIDPipe) against: string): Promise<readonly Difference[]> {
    return this.sheets.differences(id, against);
  }

  @Header('Content-Disposition', 'attachment; filename="sheet.json"')
  @Route(ENDPOINTS.sheets.json)
  async json(@Param('id', ParseUUIDPipe) id: string): Promise<SheetFile> {
    return inOrder((await this.sheets.one(id)).file);
  }

  @Header('Content-Type', 'application/yaml; charset=utf-8')
  @Header('Content-Disposition', 'attachment; filename="sheet.yaml"')
  @Route(ENDPOINTS.sheets.yaml)
  yaml(@Param('id', ParseUUIDPipe) id: string): Promise<string> {
    return this.sheets.yaml(id);
  }

  @Header('Content-Type', 'text/csv; charset=utf-8')
  @Header('Content-Disposition', 'attachment; filename="sheet.csv"')
  @Route(ENDPOINTS.sheets.csv)
  csv(@Param('id', ParseUUIDPipe) id: string, @Param('list', new ParseEnumPipe(CSV_LIST)) list: CsvList): Promise<string> {
    return this.sheets.csv(id, list);
  }

  @Route(ENDPOINTS.sheets.proposed)
  proposed(@Param('id', ParseUUIDPipe) id: string): Promise<readonly ProposalView[]> {
    return this.proposals.ofSheet(id);
  }

  @Route(ENDPOINTS.sheets.settle)
  settle(@Param('entryId', ParseUUIDPipe) entryId: string, @Body() body: SettleBody, @Req() request: FastifyRequest): Promise<void> {
    return this.proposals.settle(entryId, body.how, personOf(request).id);
  }

  @Route(ENDPOINTS.sheets.importFile)
  importFile(@Body() body: ImportSheetBody, @Req() request: FastifyRequest): Promise<ImportView> {
    return this.sheets.importFile(body.text, personOf(request), body);
  }

  @Route(ENDPOINTS.sheets.begin)
  begin(@Body() body: NewSheetBody, @Req() request: FastifyRequest): Promise<{ revisionId: string }> {
    return this.sheets.begin(body, personOf(request).id);
  }

  @Route(ENDPOINTS.sheets.draftBack)
  draftBack(@Body() body: DraftBackBody, @Req() request: FastifyRequest): Promise<{ revisionId: string }> {
    return this.sheets.draftBack(body.file, personOf(request).id);
  }

  @Route(ENDPOINTS.sheets.beginDraft)
  beginDraft(@Param('id', ParseUUIDPipe) id: string, @Req() request: FastifyRequest): Promise<{ revisionId: string }> {
    return this.sheets.beginDraft(id, personOf(request).id);
  }

  @Route(ENDPOINTS.sheets.save)
  save(@Param('id', ParseUUIDPipe) id: string, @Body() body: SaveDraftBody, @Req() request: FastifyRequest): Promise<{ version: number }> {
    return this.sheets.saveDraft(id, body.version, body.file, personOf(request).id);
  }

  @Route(ENDPOINTS.sheets.drop)
  drop(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.sheets.dropDraft(id);
  }

  @Route(ENDPOINTS.sheets.approve)
  approve(@Param('id', ParseUUIDPipe) id: string, @Req() request: FastifyRequest): Promise<void> {
    return this.sheets.approve(id, personOf(request).id);
  }

  @Route(ENDPOINTS.sheets.withdraw)
  withdraw(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.sheets.withdraw(id);
  }
}
