import { ENDPOINTS } from '@jubb/wire';
import { cutText } from '@jubb/sheet';
import { createHash } from 'node:crypto';
import { Controller, Inject, Param, ParseUUIDPipe, Query, Req, Res } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { DataSource } from 'typeorm';
import { badInput, notFound } from '../common/problem.js';
import { Paper } from '../database/entities/index.js';
import { personOf } from '../common/access.guard.js';

/** How a PDF begins (ISO 32000-1, 7.5.2). */
const PDF_HEAD = '%PDF-';
const LONGEST_NAME = 120;

/** The shop's own papers: PDF files whose pages are pinned to steps. The same file twice is one. */
@Controller('api/v1')
export class PapersController {
  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  @Route(ENDPOINTS.papers.keep)
  async keep(@Req() request: FastifyRequest, @Query('name') name = 'paper.pdf'): Promise<{ id: string }> {
    const content: unknown = request.body;
    // The head tells what it is; the type that was sent with it is only a claim.
    if (!Buffer.isBuffer(content) || content.subarray(0, PDF_HEAD.length).toString('latin1') !== PDF_HEAD)
      throw badInput([{ field: 'body', given: cutText(name, LONGEST_NAME), allowed: 'is not a PDF file' }]);
    const { manager } = this.dataSource;
    const kept = { name: cutText(name, LONGEST_NAME), content, keptBy: personOf(request).id };
    await manager.createQueryBuilder().insert().into(Paper).values(kept).orIgnore().execute();
    const sha256 = createHash('sha256').update(content).digest();
    const { id } = await manager.findOneOrFail(Paper, { select: { id: true }, where: { sha256 } });
    return { id };
  }

  @Route(ENDPOINTS.papers.read)
  async read(@Param('id', ParseUUIDPipe) id: string, @Res() reply: FastifyReply): Promise<void> {
    const paper = await this.dataSource.manager.findOneBy(Paper, { id });
    if (!paper) throw notFound('paper');
    await reply
      .type('application/pdf')
      .header('Content-Disposition', `inline; filename*=UTF-8''${encodeURIComponent(paper.name)}`)
      .send(paper.content);
  }
}
