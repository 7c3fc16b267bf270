import { createHmac } from 'node:crypto';

const BASE32 = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';

function bytesOf(secret: string): Buffer {
  const bits = [...secret].map((letter) => BASE32.indexOf(letter).toString(2).padStart(5, '0')).join('');
  return Buffer.from((bits.match(/.{8}/gu) ?? []).map((byte) => Number.parseInt(byte, 2)));
}

/**
 * What a telephone shows for a secret, `steps` half minutes from now: RFC 6238 with HMAC-SHA-1 and the truncation of RFC 4226
 * section 5.3, six digits.
 */
export function codeOf(secret: string, steps = 0, now = Date.now()): string {
  const counter = Buffer.alloc(8);
  counter.writeBigUInt64BE(BigInt(Math.floor(now / 30_000) + steps));
  const hmac = createHmac('sha1', bytesOf(secret)).update(counter).digest();
  const offset = hmac.at(-1)! & 15;
  return String((hmac.readUInt32BE(offset) & 0x7fffffff) % 1_000_000).padStart(6, '0');
}
