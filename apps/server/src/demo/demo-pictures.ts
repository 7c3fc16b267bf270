import { createHash } from 'node:crypto';
import { readFile, readdir } from 'node:fs/promises';
import { join, parse } from 'node:path';
import type { Pictures } from './demo-plan.js';

/** Pixels of the demo's photos. */
const DRAWN = { width: 640, height: 480 };

export interface PictureFile {
  readonly name: string;
  readonly content: Buffer;
  readonly sha256: string;
}

/** The photos and the clip of the demo, by their names. */
export async function readPictures(folder: string): Promise<readonly PictureFile[]> {
  const names = (await readdir(folder)).toSorted();
  return Promise.all(
    names.map(async (name) => {
      const content = await readFile(join(folder, name));
      return { name: parse(name).name, content, sha256: createHash('sha256').update(content).digest('hex') };
    }),
  );
}

/** What entries name them by. */
export function namedPictures(files: readonly PictureFile[]): Pictures {
  return Object.fromEntries(files.map(({ name, sha256 }) => [name, { file: sha256, ...DRAWN }]));
}
