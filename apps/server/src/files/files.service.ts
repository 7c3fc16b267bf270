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
    // One of before: it is written anew when it is first looked at.
    const content = await writtenAnew(row.content).catch(() => row.content);
    await this.dataSource.query('UPDATE file SET content = $2, sent_size = $3 WHERE sha256 = $1', [sha, content, row.content.length]);
    return { type: row.type, content };
  }
}

/**
 * A photo drawn anew from its pixels, the right way up: whatever else the file carried (EXIF, XMP, comments, bytes behind
 * its end), which may tell where it was taken, is not in it.
 */
export async function writtenAnew(photo: Buffer): Promise<Buffer> {
  try {
    return await sharp(photo, { limitInputPixels: MOST_PIXELS, failOn: 'error' }).rotate().jpeg({ quality: QUALITY }).toBuffer();
  } catch {
    throw badInput([{ field: 'body', allowed: `is no whole photo of at most ${MOST_PIXELS / 1e6} million pixels; take it again` }]);
  }
}
