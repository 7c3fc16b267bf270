import { randomBytes } from 'node:crypto';

/** A JPEG as far as its markers go: start, an application segment, start of scan, bytes, end. */
export function jpeg(segment: string, size: number): Buffer {
  const body = Buffer.from(segment, 'latin1');
  const head = Buffer.from([0xff, 0xd8, 0xff, segment.startsWith('Exif') ? 0xe1 : 0xe0, 0, body.length + 2]);
  return Buffer.concat([head, body, Buffer.from([0xff, 0xda, 0, 2]), randomBytes(size), Buffer.from([0xff, 0xd9])]);
}
