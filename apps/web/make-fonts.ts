// The fonts of the page without their hints for coarse screens, which are a third of them; every letter stays, and so do figures of one width.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import subsetFont from 'subset-font';

const require = createRequire(import.meta.url);
const FONTS = [
  '@fontsource/barlow/files/barlow-latin-400-normal.woff2',
  '@fontsource/barlow/files/barlow-latin-600-normal.woff2',
  '@fontsource/barlow-condensed/files/barlow-condensed-latin-600-normal.woff2',
];
const SPANS: readonly (readonly [number, number])[] = [
  [0x20, 0x7e],
  [0xa0, 0xff],
  [0x2000, 0x206f],
];
/** What the Latin files hold besides. */
const SINGLE = '\u0131\u0152\u0153\u02bb\u02bc\u02c6\u02da\u02dc\u0304\u0308\u0329\u20ac\u2122\u2191\u2193\u2212\u2215\ufeff\ufffd';

const letters = SPANS.map(([from, to]) => Array.from({ length: to - from + 1 }, (_, at) => String.fromCodePoint(from + at)).join('')).join(
  '',
);

/** Puts them into the folder, where they are not there yet. */
export async function makeFonts(folder: string): Promise<void> {
  mkdirSync(folder, { recursive: true });
  for (const font of FONTS) {
    const to = join(folder, font.slice(font.lastIndexOf('/') + 1));
    if (existsSync(to)) continue;
    const small = await subsetFont(readFileSync(require.resolve(font)), letters + SINGLE, { targetFormat: 'woff2', noHinting: true });
    writeFileSync(to, small);
  }
}
