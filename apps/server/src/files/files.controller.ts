import { ENDPOINTS, type FileState } from '@jubb/wire';
import { createHash } from 'node:crypto';
import { Controller, Inject, Param, ParseIntPipe, Query, Req, Res } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { Request, Response } from 'express';
import type { PoolClient } from 'pg';
import { DataSource } from 'typeorm';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { inTransaction, poolOf } from '../database/data-source.js';
import { personOf } from '../common/access.guard.js';
import { StreamService } from '../stream/stream.service.js';
import type { Config } from '../config.js';
import { CONFIG } from '../tokens.js';
import { fileType } from './file-type.js';
import { FilesService, writtenAnew } from './files.service.js';

/** A shrunk photo has some 300 kB, a clip of 20 s some 1.5 MB. */
const LARGEST = 4_000_000;
const SHA = /^[0-9a-f]{64}$/u;
/** Parts of a file that nobody went on sending. */
const STALE = '2 days';
/** What half files may take of the room for files. */
const PARTS_SHARE = 0.01;

/** Photos and clips, each kept once by the hash of what the tablet sent, photos drawn anew, sent in parts so that a broken link does not begin anew. */
@Controller('api/v1')
export class FilesController {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
    @Inject(FilesService) private readonly files: FilesService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** Photos leave room for the entries; and files that were begun and not ended, for photos. */
  async #checkRoom(client: PoolClient): Promise<void> {
    const { rows } = await client.query<{ whole: number; parts: number }>(
      `SELECT pg_total_relation_size('file')::float8 / 1e6 AS whole, (SELECT coalesce(sum(length(content)), 0) FROM file_part)::float8 / 1e6 AS parts`,
    );
    const { whole, parts } = rows[0]!;
    if (whole >= this.config.filesMb) throw tooMuch('The photos of the shop', this.config.filesMb);
    const mostParts = Math.max(1, this.config.filesMb * PARTS_SHARE);
    if (parts >= mostParts) throw tooMuch('Files that are half sent', Math.round(mostParts));
  }

  @Route(ENDPOINTS.files.read)
  async read(@Param('sha') sha: string, @Res() response: Response): Promise<void> {
    const row = await this.files.read(sha);
    if (!row) throw notFound('file');
    // What a hash names never changes.
    response.type(row.type).setHeader('Cache-Control', 'private, max-age=31536000, immutable').send(row.content);
  }

  @Route(ENDPOINTS.files.state)
  state(@Param('sha') sha: string): Promise<FileState> {
    return stateOf(poolOf(this.dataSource), checkedSha(sha));
  }

  /** The next part of a file; the answer says how much is here by then. */
  @Route(ENDPOINTS.files.keep)
  async keep(
    @Param('sha') given: string,
    @Query('at', new ParseIntPipe({ optional: true })) at = 0,
    @Query('total', new ParseIntPipe({ optional: true })) total = 0,
    @Req() request: Request,
  ): Promise<FileState> {
    const sha = checkedSha(given);
    const part: unknown = request.body;
    if (!Buffer.isBuffer(part) || part.length === 0) throw badInput([{ field: 'body', allowed: 'is missing: the bytes of the part' }]);
    if (total < 1 || total > LARGEST)
      throw badInput([{ field: 'total', given: String(total), allowed: `must be from 1 to ${LARGEST} bytes; shrink it first` }]);
    const personId = personOf(request).id;
    const state = await inTransaction(poolOf(this.dataSource), async (client) => {
      await client.query('SELECT pg_advisory_xact_lock(hashtext($1))', [sha]);
      const before = await stateOf(client, sha);
      if (before.whole) return before;
      if (at !== before.have)
        throw new ProblemError('part-out-of-turn', {
          current: before,
          errors: [{ field: 'at', given: String(at), allowed: `must be ${before.have}` }],
        });
      const have = at + part.length;
      if (have > total) throw badInput([{ field: 'body', given: `${have} bytes`, allowed: `is more than the ${total} bytes of the file` }]);
      if (at === 0) await this.#checkRoom(client);
      await client.query('INSERT INTO file_part (sha256, at, content) VALUES ($1, $2, $3)', [sha, at, part]);
      return have < total ? { have, whole: false } : putTogether(client, sha, personId);
    });
    if (state === undefined) throw badInput([{ field: 'sha', given: sha, allowed: 'is not the SHA-256 of these bytes; send it again' }]);
    if (state.whole) this.stream.tell({ type: 'file', file: sha });
    return state;
  }
}

function tooMuch(what: string, mb: number): ProblemError {
  return new ProblemError('no-room', {
    named: { what, mb },
    detail: 'Ask the foreman: whoever runs the server gives them more room with JUBB_FILES_MB. Everything else goes on',
  });
}

function checkedSha(sha: string): string {
  if (!SHA.test(sha)) throw badInput([{ field: 'sha', given: sha.slice(0, 70), allowed: 'must be a SHA-256, 64 hexadecimal digits' }]);
  return sha;
}

async function stateOf(on: Pick<PoolClient, 'query'>, sha: string): Promise<FileState> {
  const { rows } = await on.query(
    `SELECT coalesce((SELECT coalesce(sent_size, length(content)) FROM file WHERE sha256 = $1),
                     (SELECT sum(length(content)) FROM file_part WHERE sha256 = $1), 0)::int AS have,
            EXISTS (SELECT 1 FROM file WHERE sha256 = $1) AS whole`,
    [sha],
  );
  return rows[0] as FileState;
}

/** The file out of its parts; nothing when it is not the one that was announced, which lets the parts go. */
async function putTogether(client: PoolClient, sha: string, personId: string): Promise<FileState | undefined> {
  const { rows } = await client.query<{ content: Buffer }>('SELECT content FROM file_part WHERE sha256 = $1 ORDER BY at', [sha]);
  const content = Buffer.concat(rows.map((row) => row.content));
  await client.query(`DELETE FROM file_part WHERE sha256 = $1 OR kept_at < now() - interval '${STALE}'`, [sha]);
  if (createHash('sha256').update(content).digest('hex') !== sha) return undefined;
  const type = fileType(content);
  const kept = type === 'image/jpeg' ? await writtenAnew(content) : content;
  await client.query('INSERT INTO file (sha256, type, content, kept_by, sent_size) VALUES ($1, $2, $3, $4, $5)', [
    sha,
    type,
    kept,
    personId,
    content.length,
  ]);
  return { have: content.length, whole: true };
}
