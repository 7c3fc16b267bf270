import { randomBytes } from 'node:crypto';
import sharp from 'sharp';

/** A photo of noise, each time another one; so large that it goes in several parts when it is wide. */
export function jpeg(width: number): Promise<Buffer> {
  const height = Math.round(width * 0.75);
  return sharp(randomBytes(width * height * 3), { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 90 })
    .toBuffer();
}
