// The fonts of the page without their hints for coarse screens, which are a third of them, and in two files each: what every
// page is written in, and letters with accents, which only a page with such a name in it asks for (by unicode-range, theme.scss).
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import subsetFont from 'subset-font';

const require = createRequire(import.meta.url);
/** Name of the file here, and what it is made from. */
const FONTS = {
  'barlow-400': '@fontsource/barlow/files/barlow-latin-400-normal.woff2',
  'barlow-600': '@fontsource/barlow/files/barlow-latin-600-normal.woff2',
  'barlow-condensed-600': '@fontsource/barlow-condensed/files/barlow-condensed-latin-600-normal.woff2',
} as const;
const LATIN = span(0x20, 0x7e) + span(0xa0, 0xff) + span(0x2000, 0x206f);
/** What the Latin files hold besides. */
const SIGNS = '\u20ac\u2122\u2191\u2193\u2212\u2215\ufffd';
const MARKS = '\u0131\u0152\u0153\u02bb\u02bc\u02c6\u02da\u02dc\u0304\u0308\u0329';
const ACCENTED = /[^\u0020-\u007e\u00b5\P{L}]/u;

const PARTS = [
  // Figures of one width, and letters that stand close.
  { suffix: '', letters: [...LATIN].filter((letter) => !ACCENTED.test(letter)).join('') + SIGNS, keepFeatures: ['kern', 'tnum'] },
  {
    suffix: '-accents',
    letters: [...LATIN].filter((letter) => ACCENTED.test(letter)).join('') + MARKS,
    keepFeatures: ['kern', 'mark', 'ccmp'],
  },
] as const;

/** Puts them into the folder, where they are not there yet; what else lies there is of an earlier version. */
export async function makeFonts(folder: string): Promise<void> {
  mkdirSync(folder, { recursive: true });
  const files = Object.entries(FONTS).flatMap(([name, font]) =>
    PARTS.map((part) => ({ ...part, file: `${name}${part.suffix}.woff2`, font })),
  );
  for (const other of readdirSync(folder).filter((one) => !files.some(({ file }) => file === one))) rmSync(join(folder, other));
  for (const { file, font, letters, keepFeatures } of files) {
    const to = join(folder, file);
    if (existsSync(to)) continue;
    const from = readFileSync(require.resolve(font));
    writeFileSync(to, await subsetFont(from, letters, { targetFormat: 'woff2', noHinting: true, keepFeatures }));
  }
}

function span(from: number, to: number): string {
  return Array.from({ length: to - from + 1 }, (_, at) => String.fromCodePoint(from + at)).join('');
}
