import { badInput } from '../common/problem.js';

const START_OF_SCAN = 0xda;
const APP1 = 0xe1;

/** What a file is by its first bytes; what was sent as its type is only a claim. Refuses what is not a photo or a clip. */
export function fileType(content: Buffer): string {
  const starts = (...bytes: number[]): boolean => bytes.every((byte, at) => content[at] === byte);
  // JPEG: SOI marker (ITU-T T.81, B.1.1.3).
  if (starts(0xff, 0xd8, 0xff)) {
    if (hasExif(content))
      throw badInput([{ field: 'body', allowed: 'carries EXIF, which may tell where it was taken; it is to be taken out first' }]);
    return 'image/jpeg';
  }
  // EBML head of WebM (RFC 8794, 11.2.1).
  if (starts(0x1a, 0x45, 0xdf, 0xa3)) return 'video/webm';
  throw badInput([{ field: 'body', given: content.subarray(0, 8).toString('hex'), allowed: 'is neither a JPEG photo nor a WebM clip' }]);
}

/** Whether a JPEG has an EXIF segment (CIPA DC-008, 4.5.4): the place of a photo would stand there. */
export function hasExif(jpeg: Buffer): boolean {
  for (let at = 2; at + 4 <= jpeg.length && jpeg[at] === 0xff && jpeg[at + 1] !== START_OF_SCAN;) {
    if (jpeg[at + 1] === APP1 && jpeg.toString('latin1', at + 4, at + 8) === 'Exif') return true;
    at += 2 + jpeg.readUInt16BE(at + 2);
  }
  return false;
}
