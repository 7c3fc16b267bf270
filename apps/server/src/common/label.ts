import type { JobHead, StockLine } from '@jubb/book';
import QRCode from 'qrcode';

/** The tag that hangs on the unit, in mm: 90 × 50. */
const WIDTH = 90;
const HEIGHT = 50;
const CODE = 36;
/** Letters that fit beside the code at their size. */
const LINE_LETTERS = 22;

/** Tag label of a job as SVG, with a QR code that opens the job. */
export function jobLabel(job: JobHead, shop: string, link: string, day: (iso: string) => string): Promise<string> {
  return labelSvg(
    link,
    `Tag of job ${job.number}: ${job.unit.name}`,
    shop,
    { words: String(job.number), size: 13 },
    [job.unit.name, `No. ${job.unit.serial}`, job.machine.name, job.customer.name],
    `Promised ${day(job.promise)}`,
  );
}

/** Label of a shelf; a scanner types the number that its code holds. */
export function shelfLabel(line: StockLine, shop: string): Promise<string> {
  const { number, name, size, designation, location } = line;
  return labelSvg(
    number,
    `Shelf label of ${number}: ${name}`,
    shop,
    { words: number, size: number.length > 8 ? 6 : 9 },
    [name, ...[size, designation].filter((words): words is string => words !== null)],
    location === '' ? '' : `Shelf ${location}`,
  );
}

async function labelSvg(
  code: string,
  name: string,
  shop: string,
  big: { readonly words: string; readonly size: number },
  lines: readonly string[],
  foot: string,
): Promise<string> {
  const picture = await QRCode.toString(code, { type: 'svg', margin: 0, errorCorrectionLevel: 'M' });
  // The library's own picture, put in as a picture of this one.
  const inner = picture.replace(
    /^[\s\S]*?<svg[^>]*viewBox="([^"]+)"[^>]*>/u,
    `<svg x="4" y="8" width="${CODE}" height="${CODE}" viewBox="$1">`,
  );
  const left = 4 + CODE + 4;
  const text = (y: number, size: number, words: string, weight = 400): string =>
    `<text x="${left}" y="${y}" font-size="${size}" font-weight="${weight}">${escaped(words)}</text>`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}mm" height="${HEIGHT}mm" viewBox="0 0 ${WIDTH} ${HEIGHT}" font-family="Arial, Helvetica, sans-serif" role="img" aria-label="${escaped(name)}">`,
    `<path d="M0.5 0.5H${WIDTH - 6}L${WIDTH - 0.5} 6V${HEIGHT - 0.5}H0.5Z" fill="#fff" stroke="#000" stroke-width="0.5"/>`,
    inner.trim(),
    `<text x="4" y="5.6" font-size="3.4">${escaped(shop)}</text>`,
    text(19, big.size, cut(big.words), 700),
    ...lines.slice(0, 4).map((line, place) => text(25.5 + 5 * place, place === 0 ? 3.8 : 3.3, cut(line), place === 0 ? 600 : 400)),
    text(45.5, 3.3, cut(foot), 600),
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
