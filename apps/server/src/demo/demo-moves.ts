import type { MoveBody } from '@jubb/wire';
import type { FirstCount } from './demo-stores.js';
import type { Taking } from './demo-worker.js';
import { v5 } from 'uuid';

/** A movement as the database has it, with what lies there after it. */
export interface MovedRow extends Pick<MoveBody, 'id' | 'kind' | 'quantity' | 'batch' | 'expires' | 'words'> {
  readonly item: string;
  readonly after: number;
  readonly jobId?: string;
  readonly personId: string;
  readonly takenAt: string;
}

interface Shelf {
  readonly count: FirstCount | undefined;
  readonly takings: readonly Taking[];
}

const DAY = 24 * 3600 * 1000;
/** One line in so many runs out of itself, and nobody has filled it up yet. */
const FORGOTTEN = 9;

/**
 * What moved on the shelves in two years: counted in at the beginning, taken by the entries of jobs, filled up by the van
 * when it gets low. In the order of time; never less than nothing on a shelf.
 */
export function movesOf(counts: readonly FirstCount[], takings: readonly Taking[], begun: number, counter: string): readonly MovedRow[] {
  const shelves = new Map<string, Shelf>(counts.map((count) => [count.item, { count, takings: [] }]));
  for (const taking of takings.toSorted((a, b) => a.takenAt.localeCompare(b.takenAt))) {
    const shelf = shelves.get(taking.item) ?? { count: undefined, takings: [] };
    shelves.set(taking.item, { ...shelf, takings: [...shelf.takings, taking] });
  }
  const rows = [...shelves].flatMap(([item, shelf], place) => shelfMoves(item, shelf, place % FORGOTTEN === 0, begun, counter));
  return rows.toSorted((a, b) => a.takenAt.localeCompare(b.takenAt));
}

function shelfMoves(item: string, { count, takings }: Shelf, isForgotten: boolean, begun: number, counter: string): readonly MovedRow[] {
  const rows: MovedRow[] = [];
  let level = 0;
  const move = (row: Omit<MovedRow, 'item' | 'after'>, by: number): void => {
    level += by;
    rows.push({ ...row, item, after: level });
  };
  const minimum = count?.minimum ?? 2;
  if (count) {
    const { id, quantity, batch, expires, words } = count.move;
    // What has a best-before day came lately; the rest was there from the first day.
    const takenAt = expires === undefined ? new Date(begun).toISOString() : count.move.takenAt;
    const known = {
      ...(batch === undefined ? {} : { batch }),
      ...(expires === undefined ? {} : { expires }),
      ...(words === undefined ? {} : { words }),
    };
    move({ id, kind: 'receive', quantity, ...known, personId: counter, takenAt }, quantity);
  }
  for (const [at, { entryId, count: pieces, personId, takenAt, jobId }] of takings.entries()) {
    const isLate = isForgotten && at > takings.length - 4;
    if (level < pieces || (level - pieces < minimum && !isLate)) {
      const lot = Math.max(pieces, 3 * minimum);
      const came = new Date(Math.max(begun, Date.parse(takenAt) - DAY)).toISOString();
      move(
        { id: v5(`in ${item}`, entryId), kind: 'receive', quantity: lot, words: 'came with the van', personId: counter, takenAt: came },
        lot,
      );
    }
    move({ id: v5(item, entryId), kind: 'issue', quantity: pieces, jobId, personId, takenAt }, -pieces);
  }
  return rows;
}
