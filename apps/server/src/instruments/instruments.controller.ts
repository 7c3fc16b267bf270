import { ENDPOINTS, InstrumentBody, PairBody, type InstrumentView, type LinesView } from '@jubb/wire';
import { Body, Controller, Inject, Param, ParseUUIDPipe, Req } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyRequest } from 'fastify';
import { personOf } from '../common/access.guard.js';
import { badInput } from '../common/problem.js';
import { InstrumentsService } from './instruments.service.js';

@Controller('api/v1')
export class InstrumentsController {
  constructor(@Inject(InstrumentsService) private readonly instruments: InstrumentsService) {}

  @Route(ENDPOINTS.instruments.list)
  list(): Promise<readonly InstrumentView[]> {
    return this.instruments.list();
  }

  @Route(ENDPOINTS.instruments.begin)
  begin(@Body() body: InstrumentBody, @Req() request: FastifyRequest): Promise<readonly InstrumentView[]> {
    return this.instruments.begin(body, personOf(request));
  }

  @Route(ENDPOINTS.instruments.end)
  end(@Param('id', ParseUUIDPipe) id: string, @Req() request: FastifyRequest): Promise<readonly InstrumentView[]> {
    return this.instruments.end(id, personOf(request));
  }

  @Route(ENDPOINTS.instruments.pair)
  pair(@Param('id', ParseUUIDPipe) id: string, @Body() { tabletId = null }: PairBody): Promise<void> {
    return this.instruments.pair(id, tabletId);
  }

  @Route(ENDPOINTS.instruments.newKey)
  async newKey(@Param('id', ParseUUIDPipe) id: string): Promise<{ key: string }> {
    return { key: await this.instruments.newKey(id) };
  }

  /** Readings as NDJSON, a line each; a line that does not hold is named, and the others are taken. */
  @Route(ENDPOINTS.instruments.lines)
  lines(@Param('id', ParseUUIDPipe) id: string, @Req() request: FastifyRequest): Promise<LinesView> {
    const key = /^Bearer (?<key>\S+)$/u.exec(request.headers.authorization ?? '')?.groups?.['key'];
    const body: unknown = request.body;
    const isPerson = request.session.person !== undefined;
    if (isPerson && !Buffer.isBuffer(body))
      throw badInput([
        { field: 'content-type', given: request.headers['content-type'] ?? 'none', allowed: 'must be application/x-ndjson' },
      ]);
    return this.instruments.lines(id, Buffer.isBuffer(body) ? body : Buffer.alloc(0), key, isPerson);
  }
}
