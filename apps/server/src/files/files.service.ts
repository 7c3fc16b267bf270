import { Inject, Injectable } from '@nestjs/common';
import sharp from 'sharp';
import { DataSource } from 'typeorm';
import { badInput } from '../common/problem.js';

/** More than any tablet's camera takes, and no more than a moment's work. */
const MOST_PIXELS = 50_000_000;
const QUALITY = 90;

export interface KeptFile {
  readonly type: string;
  readonly content: Buffer;
}

/** What is kept of photos and clips. */
@Injectable()
export class FilesService {
  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  async read(sha: string): Promise<KeptFile | undefined> {
    const [row] = await this.dataSource.query<(KeptFile & { readonly isAnew: boolean })[]>(
      'SELECT type, content, sent_size IS NOT NULL AS "isAnew" FROM file WHERE sha256 = $1',
      [sha],
    );
    if (!row || row.isAnew || row.type !== 'image/jpeg') return row;
    // One of before: it is drawn anew when it is first looked at. What breaks off is drawn as far as it goes; of what
    // cannot be drawn nothing is given out, for a place may stand in it.
    const content = await drawn(row.content, 'none').catch(() => undefined);
    if (!content) return undefined;
    await this.dataSource.query('UPDATE file SET content = $2, sent_size = $3 WHERE sha256 = $1', [sha, content, row.content.length]);
    return { type: row.type, content };
  }
}

function drawn(photo: Buffer, failOn: 'none' | 'error'): Promise<Buffer> {
  return sharp(photo, { limitInputPixels: MOST_PIXELS, failOn }).rotate().jpeg({ quality: QUALITY }).toBuffer();
}

/**
 * A photo drawn anew from its pixels, the right way up: whatever else the file carried (EXIF, XMP, comments, bytes behind
 * its end), which may tell where it was taken, is not in it.
 */
export async function writtenAnew(photo: Buffer): Promise<Buffer> {
  try {
    return await drawn(photo, 'error');
  } catch {
    throw badInput([{ field: 'body', allowed: `is no whole photo of at most ${MOST_PIXELS / 1e6} million pixels; take it again` }]);
  }
}
