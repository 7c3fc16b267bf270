import { badInput } from '../common/problem.js';

/** What a file is by its first bytes; what was sent as its type is only a claim. Refuses what is not a photo or a clip. */
export function fileType(content: Buffer): 'image/jpeg' | 'video/webm' {
  const starts = (...bytes: number[]): boolean => bytes.every((byte, at) => content[at] === byte);
  // JPEG: SOI marker (ITU-T T.81, B.1.1.3).
  if (starts(0xff, 0xd8, 0xff)) return 'image/jpeg';
  // EBML head of WebM (RFC 8794, 11.2.1).
  if (starts(0x1a, 0x45, 0xdf, 0xa3)) return 'video/webm';
  throw badInput([{ field: 'body', given: content.subarray(0, 8).toString('hex'), allowed: 'is neither a JPEG photo nor a WebM clip' }]);
}
