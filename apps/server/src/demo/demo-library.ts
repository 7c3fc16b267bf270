import { refOf, type SheetFile } from '@jubb/sheet';
import { fromTemplate } from '@jubb/sheet/editing';
import { readFile } from 'node:fs/promises';
import { TASKS } from '../sheets/sheet-worker.js';
import { EARLIER } from './demo-known.js';

/** A revision of a sheet of the demo as it is kept. */
export interface LibrarySheet {
  readonly key: string;
  readonly revision: number;
  readonly status: 'approved' | 'superseded' | 'draft';
  readonly file: SheetFile;
  readonly yaml: string | null;
  readonly complete: ReturnType<typeof TASKS.mark>['complete'];
  readonly hash: string;
}

/** Written where this module lies when the server is built: to read it anew takes seconds at every first start. */
export const LIBRARY = new URL('library.json', import.meta.url);

export async function readLibraryFile(): Promise<readonly LibrarySheet[]> {
  return JSON.parse(await readFile(LIBRARY, 'utf8')) as readonly LibrarySheet[];
}

/** The sheets in force, as another shop begins its own from them. */
export async function readExamples(): Promise<readonly SheetFile[]> {
  const library = await readLibraryFile();
  return library.filter(({ status }) => status === 'approved').map(({ file }) => file);
}

/** Reads the sheets of the demo, in order, those that were in force before the last revision with them. Throws at one that is not sound. */
export function readLibrary(texts: readonly string[]): readonly LibrarySheet[] {
  return texts.flatMap((text) =>
    [...earlierTexts(text), text].map((one, at, all): LibrarySheet => {
      const read = TASKS.read(one);
      if (!read.ok) throw new Error(`A sheet of the demo is not sound: ${JSON.stringify(read.issues[0])}`);
      const { plain: file, yaml } = read;
      const status = at === all.length - 1 ? 'approved' : 'superseded';
      return { key: file.key, revision: at + 1, status, file, yaml: yaml ?? null, ...TASKS.mark(file) };
    }),
  );
}

/** A model that is in the shop without a sheet: its family is known, and nobody's figures. */
const NEW_MODEL = { family: 'PTO gearbox', make: 'Quennet', model: 'RA 3', machine: 'Snow blower' };

/** The sheet of that model as it is begun, from the first of its kind. */
export function begunSheet(library: readonly LibrarySheet[]): LibrarySheet {
  const { file: family } = library.find(({ status, file }) => status === 'approved' && file.family === NEW_MODEL.family)!;
  const file = fromTemplate(family, { ...NEW_MODEL, key: refOf(`${NEW_MODEL.make} ${NEW_MODEL.model}`, 60) });
  return { key: file.key, revision: 1, status: 'draft', file, yaml: null, ...TASKS.mark(file) };
}

/** The texts that a sheet had before its last revision, where it was revised. */
function earlierTexts(text: string): readonly string[] {
  return EARLIER.filter(([key]) => text.includes(`key: ${key}`)).map(([, now, before]) => text.replace(now, before));
}
