import type { PersonView } from '@jubb/book';
import type { ChangedField, ChangedThing } from '@jubb/wire';
import type { EntityManager } from 'typeorm';
import { ShopChange } from '../database/entities/index.js';

/** What a field is called, and its value in words; a secret has none. */
export type InWords = Readonly<Record<string, string>>;

/** The fields that differ. */
export function changedFields(before: InWords, after: InWords): readonly ChangedField[] {
  return [...new Set([...Object.keys(before), ...Object.keys(after)])].flatMap((field) => {
    const [was = '', is = ''] = [before[field], after[field]];
    return was === is ? [] : [{ field, before: was, after: is }];
  });
}

/** Keeps a change as part of what makes it; one that changes nothing is none. */
export async function keepChange(
  manager: EntityManager,
  by: PersonView,
  { what, subject, act }: { readonly what: ChangedThing; readonly subject: string; readonly act: string },
  fields: readonly ChangedField[],
): Promise<void> {
  await manager.insert(ShopChange, { personId: by.id, what, subject, act, fields: [...fields] });
}
