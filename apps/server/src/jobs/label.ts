import type { JobHead } from '@jubb/contract';
import QRCode from 'qrcode';

/** The tag that hangs on the unit, in mm: 90 × 50. */
const WIDTH = 90;
const HEIGHT = 50;
const CODE = 36;
/** Letters that fit beside the code at their size. */
const LINE_LETTERS = 22;

/** Tag label of a job as SVG, with a QR code that opens the job. */
export async function labelSvg(job: JobHead, shop: string, link: string, day: (iso: string) => string): Promise<string> {
  const code = await QRCode.toString(link, { type: 'svg', margin: 0, errorCorrectionLevel: 'M' });
  // The library's own picture, put in as a picture of this one.
  const inner = code.replace(
    /^[\s\S]*?<svg[^>]*viewBox="([^"]+)"[^>]*>/u,
    `<svg x="4" y="8" width="${CODE}" height="${CODE}" viewBox="$1">`,
  );
  const left = 4 + CODE + 4;
  const text = (y: number, size: number, words: string, weight = 400): string =>
    `<text x="${left}" y="${y}" font-size="${size}" font-weight="${weight}">${escaped(words)}</text>`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}mm" height="${HEIGHT}mm" viewBox="0 0 ${WIDTH} ${HEIGHT}" font-family="Arial, Helvetica, sans-serif" role="img" aria-label="${escaped(`Tag of job ${job.number}: ${job.unit.name}`)}">`,
    `<path d="M0.5 0.5H${WIDTH - 6}L${WIDTH - 0.5} 6V${HEIGHT - 0.5}H0.5Z" fill="#fff" stroke="#000" stroke-width="0.5"/>`,
    inner.trim(),
    `<text x="4" y="5.6" font-size="3.4">${escaped(shop)}</text>`,
    text(19, 13, String(job.number), 700),
    text(25.5, 3.8, cut(job.unit.name), 600),
    text(30.5, 3.3, cut(`No. ${job.unit.serial}`)),
    text(35.5, 3.3, cut(job.machine.name)),
    text(40.5, 3.3, cut(job.customer.name)),
    text(45.5, 3.3, `Promised ${escaped(day(job.promise))}`, 600),
    '</svg>',
  ].join('\n');
}

function cut(words: string): string {
  const letters = [...words];
  return letters.length <= LINE_LETTERS ? words : `${letters.slice(0, LINE_LETTERS - 1).join('')}…`;
}

function escaped(words: string): string {
  return words.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
}
