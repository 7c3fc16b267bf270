import { find, type SheetFile } from '@jubb/sheet';
import { benchAnyway } from '../benches.js';
import { kindOf } from '../kinds/registry.js';
import type { NewEntry } from './entry.js';

/** Whether an entry is work at a machine that its step names: a note, a photo or a strike is none. */
export function needsBench({ kind, step }: Pick<NewEntry, 'kind' | 'step'>, sheet: SheetFile): boolean {
  const { act, hands, reads } = kindOf(kind);
  if (!act && !hands && reads === undefined) return false;
  const at = find(sheet.steps, step);
  return at !== undefined && benchAnyway(at) !== undefined;
}
