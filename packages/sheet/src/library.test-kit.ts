import type { SheetFile } from './model/file.js';
import { readSheetFile } from './reading/read.js';
import { readFileSync, readdirSync } from 'node:fs';

const FOLDER = new URL('../../../apps/server/demo/sheets/', import.meta.url);
/** Each with its file's name. */
export const texts = readdirSync(FOLDER).map((name) => [name, readFileSync(new URL(name, FOLDER), 'utf8')] as const);

export function read(text: string): SheetFile {
  const result = readSheetFile(text);
  if (!result.ok) throw new Error(JSON.stringify(result.issues));
  return result.plain;
}

function copy(sheet: SheetFile): SheetFile {
  return structuredClone(sheet);
}

/** Every sheet of the demo shop, by its file. */
export const all = texts.map(([name, text]) => [name, read(text)] as const);
export const named = (part: string): SheetFile => copy(all.find(([name]) => name.includes(part))![1]);
export const alternator = (): SheetFile => named('alternator');
