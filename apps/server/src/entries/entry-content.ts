import { broughtUp, kindOf, workingFor, type CribTool, type EntryKind, type NewEntry } from '@jubb/book';
import type { SheetFile } from '@jubb/sheet';
import { contentWith, type EntryContent } from './entry-hash.js';

/** An entry of an older tablet as its kind has it today. */
export function asToday(entry: NewEntry): NewEntry {
  const { version = 1, ...rest } = entry;
  const kind = kindOf<EntryKind>(entry.kind);
  return version >= kind.version ? rest : { ...rest, payload: broughtUp(kind, version, entry.payload) };
}

export interface Making {
  readonly jobId: string;
  readonly personId: string;
  readonly sheet: SheetFile;
  readonly tools: ReadonlyMap<string, CribTool>;
}

/** What is kept and hashed of an entry, with its working. */
export function contentOf(entry: NewEntry, { jobId, personId, sheet, tools }: Making): EntryContent {
  const working = workingFor(entry.kind, entry.payload, sheet, entry.toolId ? tools.get(entry.toolId) : undefined);
  return contentWith(entry, { jobId, personId, working, version: kindOf(entry.kind).version });
}
