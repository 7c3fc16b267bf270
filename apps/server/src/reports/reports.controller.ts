import { dayWordsIn } from '@jubb/sheet';
import { ENDPOINTS } from '@jubb/wire';
import { timesIn, jobReport, jobState, torqueLog } from '@jubb/book';
import { tableCsv } from '@jubb/sheet/editing';
import { Controller, Header, Inject, Param, ParseUUIDPipe, Req, Res } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { DataSource } from 'typeorm';
import { Shop } from '../database/entities/index.js';
import { FilesService } from '../files/files.service.js';
import { JobsService } from '../jobs/jobs.service.js';
import { jobLabel } from '../common/label.js';
import { reportPdf } from './report-pdf.js';

@Controller('api/v1')
export class ReportsController {
  constructor(
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(FilesService) private readonly files: FilesService,
    @Inject(DataSource) private readonly dataSource: DataSource,
  ) {}

  /** The tag that is printed at book-in; its code opens the job at the address this was asked from. */
  @Header('Content-Type', 'image/svg+xml; charset=utf-8')
  @Route(ENDPOINTS.reports.label)
  async label(@Param('id', ParseUUIDPipe) id: string, @Req() request: FastifyRequest): Promise<string> {
    const [job, shop] = await Promise.all([this.jobs.head(id), this.dataSource.getRepository(Shop).findOneByOrFail({ id: 1 })]);
    const link = `${request.protocol}://${request.host}/jobs/${job.id}`;
    return jobLabel(job, shop.name, link, (iso) => dayWordsIn(shop.zone, iso, true));
  }

  /** Every pull of the job, struck ones left out. */
  @Route(ENDPOINTS.reports.torqueLog)
  async torqueLog(@Param('id', ParseUUIDPipe) id: string, @Res() reply: FastifyReply): Promise<void> {
    const job = await this.jobs.view(id);
    const { joints } = jobState(job.sheet.file, job.entries);
    const log = torqueLog(joints, {
      tool: (toolId) => job.tools.find((tool) => tool.id === toolId)?.tag ?? '',
      person: (personId) => job.people.find((person) => person.id === personId)?.name ?? '',
    });
    await reply.type('text/csv').header('Content-Disposition', `attachment; filename="job-${job.number}-torque.csv"`).send(tableCsv(log));
  }

  @Route(ENDPOINTS.reports.pdf)
  async pdf(@Param('id', ParseUUIDPipe) id: string, @Res() reply: FastifyReply): Promise<void> {
    const [job, shop] = await Promise.all([this.jobs.view(id), this.dataSource.getRepository(Shop).findOneByOrFail({ id: 1 })]);
    const report = jobReport(job, timesIn(shop.zone));
    // One that is still on a tablet is left out.
    const logo = shop.logo === null ? undefined : await this.files.read(shop.logo);
    const pdf = await reportPdf(report, shop.name, logo?.type === 'image/jpeg' ? logo.content : undefined);
    await reply.type('application/pdf').header('Content-Disposition', `inline; filename="job-${job.number}.pdf"`).send(pdf);
  }
}
