import type { SheetDocument } from './file.js';
import type { Sourced } from './values.js';

/** Where a value stands: title of the document, and page. */
export function sourceWords(sourced: Sourced, documents: readonly SheetDocument[]): readonly string[] {
  const title = documents.find(({ ref }) => ref === sourced.source)?.title ?? sourced.source;
  return sourced.page === undefined ? [title] : [title, sourced.page];
}
