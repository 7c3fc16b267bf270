import { ENDPOINTS, type FileState } from '@jubb/wire';
import { Controller, Inject, Param, ParseIntPipe, Query, Req, Res } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { badInput, notFound } from '../common/problem.js';
import { personOf } from '../common/access.guard.js';
import { FilesService } from './files.service.js';

/** A shrunk photo has some 300 kB, a clip of 20 s some 1.5 MB. */
const LARGEST = 4_000_000;
const SHA = /^[0-9a-f]{64}$/u;

@Controller('api/v1')
export class FilesController {
  constructor(@Inject(FilesService) private readonly files: FilesService) {}

  @Route(ENDPOINTS.files.read)
  async read(@Param('sha') sha: string, @Res() reply: FastifyReply): Promise<void> {
    const file = await this.files.read(sha);
    if (!file) throw notFound('file');
    // What a hash names never changes.
    await reply.type(file.type).header('Cache-Control', 'private, max-age=31536000, immutable').send(file.content);
  }

  @Route(ENDPOINTS.files.state)
  state(@Param('sha') sha: string): Promise<FileState> {
    return this.files.state(checkedSha(sha));
  }

  @Route(ENDPOINTS.files.keep)
  keep(
    @Param('sha') sha: string,
    @Query('at', new ParseIntPipe({ optional: true })) at = 0,
    @Query('total', new ParseIntPipe({ optional: true })) total = 0,
    @Req() request: FastifyRequest,
  ): Promise<FileState> {
    const bytes: unknown = request.body;
    if (!Buffer.isBuffer(bytes) || bytes.length === 0) throw badInput([{ field: 'body', allowed: 'is missing: the bytes of the part' }]);
    if (total < 1 || total > LARGEST)
      throw badInput([{ field: 'total', given: String(total), allowed: `must be from 1 to ${LARGEST} bytes; shrink it first` }]);
    return this.files.keep(checkedSha(sha), { at, total, bytes }, personOf(request).id);
  }
}

function checkedSha(sha: string): string {
  if (!SHA.test(sha)) throw badInput([{ field: 'sha', given: sha.slice(0, 70), allowed: 'must be a SHA-256, 64 hexadecimal digits' }]);
  return sha;
}
