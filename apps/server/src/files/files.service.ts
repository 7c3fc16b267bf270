import type { FileState } from '@jubb/wire';
import { createHash } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import sharp from 'sharp';
import { DataSource, LessThan, type EntityManager } from 'typeorm';
import { ProblemError, badInput } from '../common/problem.js';
import type { Config } from '../config.js';
import { ask, inTransaction, lockName } from '../database/data-source.js';
import { FilePart, KeptFile } from '../database/entities/index.js';
import { StreamService } from '../stream/stream.service.js';
import { CONFIG } from '../tokens.js';
import { fileType } from './file-type.js';
import { ROOM, STATE } from './files.sql.js';

/** More than any tablet's camera takes, and no more than a moment's work. */
const MOST_PIXELS = 50_000_000;
const QUALITY = 90;
/** After so long nobody goes on sending the parts of a file, ms. */
const STALE_MS = 2 * 24 * 3600 * 1000;
/** What half files may take of the room for files. */
const PARTS_SHARE = 0.01;

/** A part of a file that is being sent: where it begins, and how long the whole is, bytes. */
export interface Part {
  readonly at: number;
  readonly total: number;
  readonly bytes: Buffer;
}

/** Photos and clips, each kept once by the hash of what the tablet sent, photos drawn anew, sent in parts so that a broken link does not begin anew. */
@Injectable()
export class FilesService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  async read(sha: string): Promise<Pick<KeptFile, 'type' | 'content'> | undefined> {
    const { manager } = this.dataSource;
    const file = await manager.findOneBy(KeptFile, { sha256: sha });
    if (!file) return undefined;
    if (file.sentSize !== null || file.type !== 'image/jpeg') return file;
    // One of before: it is drawn anew when it is first looked at. What breaks off is drawn as far as it goes; of what
    // cannot be drawn nothing is given out, for a place may stand in it.
    const content = await drawn(file.content, 'none').catch(() => undefined);
    if (!content) return undefined;
    await manager.update(KeptFile, sha, { content, sentSize: file.content.length });
    return { type: file.type, content };
  }

  state(sha: string): Promise<FileState> {
    return stateOf(this.dataSource.manager, sha);
  }

  /** Keeps the next part of a file; the answer says how much is here by then. */
  async keep(sha: string, { at, total, bytes }: Part, personId: string): Promise<FileState> {
    const state = await inTransaction(this.dataSource, async (manager) => {
      await lockName(manager, sha);
      const before = await stateOf(manager, sha);
      if (before.whole) return before;
      if (at !== before.have)
        throw new ProblemError('part-out-of-turn', {
          current: before,
          errors: [{ field: 'at', given: String(at), allowed: `must be ${before.have}` }],
        });
      const have = at + bytes.length;
      if (have > total) throw badInput([{ field: 'body', given: `${have} bytes`, allowed: `is more than the ${total} bytes of the file` }]);
      if (at === 0) await this.#checkRoom(manager);
      await manager.insert(FilePart, { sha256: sha, at, content: bytes });
      return have < total ? { have, whole: false } : putTogether(manager, sha, personId);
    });
    if (state === undefined) throw badInput([{ field: 'sha', given: sha, allowed: 'is not the SHA-256 of these bytes; send it again' }]);
    if (state.whole) this.stream.tell({ type: 'file', file: sha });
    return state;
  }

  /** Photos leave room for the entries; and files that were begun and not ended, for photos. */
  async #checkRoom(manager: EntityManager): Promise<void> {
    const [room] = await ask<{ whole: number; parts: number }>(manager, ROOM);
    const { whole, parts } = room!;
    if (whole >= this.config.filesMb) throw tooMuch('The photos of the shop', this.config.filesMb);
    const mostParts = Math.max(1, this.config.filesMb * PARTS_SHARE);
    if (parts >= mostParts) throw tooMuch('Files that are half sent', Math.round(mostParts));
  }
}

function tooMuch(what: string, mb: number): ProblemError {
  return new ProblemError('no-room', {
    named: { what, mb },
    detail: 'Ask the foreman: whoever runs the server gives them more room with JUBB_FILES_MB. Everything else goes on',
  });
}

async function stateOf(manager: EntityManager, sha: string): Promise<FileState> {
  const [state] = await ask<FileState>(manager, STATE, sha);
  return state!;
}

/** The file out of its parts; nothing when it is not the one that was announced, which lets the parts go. */
async function putTogether(manager: EntityManager, sha: string, personId: string): Promise<FileState | undefined> {
  const parts = await manager.find(FilePart, { where: { sha256: sha }, order: { at: 'ASC' } });
  const content = Buffer.concat(parts.map((part) => part.content));
  await manager.delete(FilePart, { sha256: sha });
  await manager.delete(FilePart, { keptAt: LessThan(new Date(Date.now() - STALE_MS)) });
  if (createHash('sha256').update(content).digest('hex') !== sha) return undefined;
  const type = fileType(content);
  const kept = type === 'image/jpeg' ? await writtenAnew(content) : content;
  await manager.insert(KeptFile, { sha256: sha, type, content: kept, keptBy: personId, sentSize: content.length });
  return { have: content.length, whole: true };
}

function drawn(photo: Buffer, failOn: 'none' | 'error'): Promise<Buffer> {
  return sharp(photo, { limitInputPixels: MOST_PIXELS, failOn }).rotate().jpeg({ quality: QUALITY }).toBuffer();
}

/**
 * A photo drawn anew from its pixels, the right way up: whatever else the file carried (EXIF, XMP, comments, bytes behind
 * its end), which may tell where it was taken, is not in it.
 */
async function writtenAnew(photo: Buffer): Promise<Buffer> {
  try {
    return await drawn(photo, 'error');
  } catch {
    throw badInput([{ field: 'body', allowed: `is no whole photo of at most ${MOST_PIXELS / 1e6} million pixels; take it again` }]);
  }
}
