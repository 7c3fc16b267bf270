import { ENDPOINTS } from '@jubb/wire';
import { cutText } from '@jubb/sheet';
import { Controller, Inject, Param, ParseUUIDPipe, Query, Req, Res } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { Request, Response } from 'express';
import { DataSource } from 'typeorm';
import { badInput, notFound } from '../common/problem.js';
import { personOf } from '../common/access.guard.js';

/** How a PDF begins (ISO 32000-1, 7.5.2). */
const PDF_HEAD = '%PDF-';
const LONGEST_NAME = 120;

interface PaperRow {
  readonly name: string;
  readonly content: Buffer;
}

/** The shop's own papers: PDF files whose pages are pinned to steps. The same file twice is one. */
@Controller('api/v1')
export class PapersController {
  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  @Route(ENDPOINTS.papers.keep)
  async keep(@Req() request: Request, @Query('name') name = 'paper.pdf'): Promise<{ id: string }> {
    const content: unknown = request.body;
    // The head tells what it is; the type that was sent with it is only a claim.
    if (!Buffer.isBuffer(content) || content.subarray(0, PDF_HEAD.length).toString('latin1') !== PDF_HEAD)
      throw badInput([{ field: 'body', given: cutText(name, LONGEST_NAME), allowed: 'is not a PDF file' }]);
    const [row] = await this.dataSource.query<{ id: string }[]>(
      `INSERT INTO paper (name, content, kept_by) VALUES ($1, $2, $3)
       ON CONFLICT (sha256) DO UPDATE SET name = paper.name RETURNING id`,
      [cutText(name, LONGEST_NAME), content, personOf(request).id],
    );
    return { id: row?.id ?? '' };
  }

  @Route(ENDPOINTS.papers.read)
  async read(@Param('id', ParseUUIDPipe) id: string, @Res() response: Response): Promise<void> {
    const [row] = await this.dataSource.query<PaperRow[]>('SELECT name, content FROM paper WHERE id = $1', [id]);
    if (!row) throw notFound('paper');
    response
      .type('application/pdf')
      .setHeader('Content-Disposition', `inline; filename*=UTF-8''${encodeURIComponent(row.name)}`)
      .send(row.content);
  }
}
