import type { SheetFile } from '@jubb/sheet';
import type { EntryKind, KeptEntry } from '../entries/kept.js';

/** Sections of the customer's report that entries are put into. */
export type SectionId =
  | 'found'
  | 'measured'
  | 'setting'
  | 'pattern'
  | 'fits'
  | 'worked'
  | 'customer'
  | 'departs'
  | 'taken-on'
  | 'seals'
  | 'pulls'
  | 'no-number'
  | 'held'
  | 'home'
  | 'stuck'
  | 'set-again';

/** How an entry stands in a section of the report. */
export interface Within<K extends EntryKind> {
  readonly section: SectionId;
  /** Only where this is so. */
  readonly when?: (entry: KeptEntry<K>) => boolean;
  /** Its cells before tool, person and time; its words where none are given. */
  readonly cells?: (entry: KeptEntry<K>, sheet: SheetFile) => readonly string[];
}
