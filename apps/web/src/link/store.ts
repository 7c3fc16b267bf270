import type { EntryKind } from '@jubb/book';
import type { Problem } from '@jubb/wire';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** What is recorded, before it has a number and a hash. */
export interface Draft {
  readonly kind: EntryKind;
  /** Of its kind, as this page has it; 1 where nothing is said. A later page may send it. */
  readonly version?: number;
  readonly payload: object;
  readonly step?: string;
  readonly toolId?: string;
  readonly strikes?: string;
}

export interface Held extends Draft {
  readonly id: string;
  readonly jobId: string;
  readonly personId: string;
  readonly takenAt: string;
  /** Why the server would not take it; it is kept until a person decides. */
  readonly refused?: Problem;
}

/** A photo or clip that is not wholly at the server yet. */
export interface HeldFile {
  readonly sha: string;
  readonly blob: Blob;
  readonly refused?: Problem;
}

interface OutboxDb extends DBSchema {
  held: { key: string; value: Held };
  files: { key: string; value: HeldFile };
}

let db: Promise<IDBPDatabase<OutboxDb>> | undefined;

/** What this device keeps until the server has it. */
export function store(): Promise<IDBPDatabase<OutboxDb>> {
  db ??= openDB<OutboxDb>('jubb', 2, {
    upgrade: (fresh, before) => {
      if (before < 1) fresh.createObjectStore('held', { keyPath: 'id' });
      if (before < 2) fresh.createObjectStore('files', { keyPath: 'sha' });
    },
    // A page of the next version wants to open it: this one lets go, and opens it anew when it next needs it.
    blocking: (_now, _next, event) => {
      (event.target as IDBDatabase).close();
      db = undefined;
    },
    // The browser closed it, for want of room or by its own will.
    terminated: () => {
      db = undefined;
    },
  });
  db.catch(() => {
    db = undefined;
  });
  return db;
}
