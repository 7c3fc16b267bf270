import { PostEntries, type AnyKeptEntry, type EarlierView, type JobHead } from '@jubb/book';
import { ENDPOINTS, BookInBody, PatchJobBody, type ChainView, type ComebackView, type EarlierReading, type KnowHow } from '@jubb/wire';
import { Body, Controller, Header, Inject, Param, ParseIntPipe, ParseUUIDPipe, Query, Req } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyRequest } from 'fastify';
import { EntriesService } from '../entries/entries.service.js';
import { verifyChain } from '../entries/entry-hash.js';
import { makerOf, personOf } from '../common/access.guard.js';
import { findText } from '../common/find-text.js';
import { JobsService } from './jobs.service.js';

@Controller('api/v1')
export class JobsController {
  constructor(
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(EntriesService) private readonly entries: EntriesService,
  ) {}

  /** A page of jobs (`JobHead`), as JSON that the database made. */
  @Header('Content-Type', 'application/json; charset=utf-8')
  @Route(ENDPOINTS.jobs.list)
  list(@Query('find') find?: string, @Query('before', new ParseIntPipe({ optional: true })) before?: number): Promise<string> {
    return this.jobs.listJson(findText(find), before);
  }

  @Route(ENDPOINTS.jobs.bookIn)
  bookIn(@Body() body: BookInBody, @Req() request: FastifyRequest): Promise<JobHead> {
    return this.jobs.bookIn(body, personOf(request));
  }

  @Header('Content-Type', 'application/json; charset=utf-8')
  @Route(ENDPOINTS.jobs.view)
  async view(@Param('id', ParseUUIDPipe) id: string): Promise<Buffer> {
    // As bytes: a long text is written to a socket in several goes.
    return Buffer.from(await this.jobs.viewJson(id));
  }

  @Route(ENDPOINTS.jobs.patch)
  patch(@Param('id', ParseUUIDPipe) id: string, @Body() body: PatchJobBody): Promise<JobHead> {
    return this.jobs.patch(id, body);
  }

  @Route(ENDPOINTS.jobs.earlier)
  earlier(@Param('id', ParseUUIDPipe) id: string): Promise<readonly EarlierReading[]> {
    return this.jobs.earlier(id);
  }

  /** How other jobs of the same sheet came to their settings, pulls and fits. */
  @Route(ENDPOINTS.jobs.workedBefore)
  workedBefore(@Param('id', ParseUUIDPipe) id: string): Promise<EarlierView> {
    return this.jobs.workedBefore(id);
  }

  /** What others kept at the steps of this model. */
  @Route(ENDPOINTS.jobs.knowHow)
  knowHow(@Param('id', ParseUUIDPipe) id: string): Promise<readonly KnowHow[]> {
    return this.jobs.knowHow(id);
  }

  /** How many units of the same sheet were handed over, and came back within a year. */
  @Route(ENDPOINTS.jobs.comebacks)
  comebacks(@Param('id', ParseUUIDPipe) id: string): Promise<ComebackView> {
    return this.jobs.comebacks(id);
  }

  @Route(ENDPOINTS.jobs.chain)
  async chain(@Param('id', ParseUUIDPipe) id: string): Promise<ChainView> {
    await this.jobs.head(id);
    return verifyChain(await this.entries.asKept(id));
  }

  /** What came after an entry, by its number in the job: what a page does not have yet. */
  @Route(ENDPOINTS.jobs.after)
  after(@Param('id', ParseUUIDPipe) id: string, @Query('after', ParseIntPipe) seq: number): Promise<readonly AnyKeptEntry[]> {
    return this.entries.after(id, seq);
  }

  @Route(ENDPOINTS.jobs.post)
  post(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() body: PostEntries,
    @Req() request: FastifyRequest,
  ): Promise<readonly AnyKeptEntry[]> {
    return this.entries.post(id, makerOf(request, body.personId), body.entries);
  }
}
