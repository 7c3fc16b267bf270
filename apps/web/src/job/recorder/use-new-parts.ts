import { newPartWords, type NewPart, type PartLine } from '@jubb/book';
import { useParts } from '../use-parts.ts';
import { useHere } from '../use-job.ts';
import type { Draft } from '../../link/store.ts';

type Shelf = NonNullable<PartLine['shelf']>;

/** What is said of pieces that come off a shelf. */
export function outOfWords({ location, number }: Shelf): string {
  return `out of stores, ${location || number}`;
}

/** A new part, and where it can be had in this shop. */
export interface Source {
  readonly part: NewPart;
  /** "2 × Lip seal". */
  readonly words: string;
  readonly count: number;
  /** They are out of stores for this job already. */
  readonly isOut: boolean;
  /** The shelf that has them all, those kept for this job first. */
  readonly shelf: Shelf | undefined;
}

interface NewParts {
  readonly sources: readonly Source[];
  /** Neither out nor on a shelf: somebody must say where they come from. */
  readonly elsewhere: readonly Source[];
  readonly isLooking: boolean;
  /** The shelves cannot be seen: no link, or the server fails. */
  readonly isBlind: boolean;
  /** Entries that say that all of them are in hand; what is on a shelf is taken off it, unless other words say where it is from. */
  drafts(words: string, step?: string): readonly Draft[];
}

/** Where the new parts of an act come from. */
export function useNewParts(wanted: readonly NewPart[]): NewParts {
  const { sheet } = useHere();
  const { parts, isLooking } = useParts();
  const sources = wanted.map((part): Source => {
    const count = part.pieces - part.here;
    const line = parts?.lines.find(({ need }) => need.parts.includes(part.part.ref));
    return {
      part,
      words: newPartWords(sheet, part),
      count,
      isOut: line !== undefined && line.out - line.here >= count,
      shelf: line && shelfWith(line, count),
    };
  });
  const elsewhere = sources.filter(({ isOut, shelf }) => !isOut && !shelf);
  const drafts = (words: string, step?: string): readonly Draft[] =>
    sources.map((source) => {
      const { part, count, isOut, shelf } = source;
      const isElsewhere = words !== '' && (elsewhere.length === 0 || elsewhere.includes(source));
      const seen = isElsewhere ? words : isOut || !shelf ? 'out of stores' : outOfWords(shelf);
      return {
        kind: 'replacement-here',
        payload: { part: part.part.ref, count, seen, ...(isElsewhere || isOut || !shelf ? {} : { item: shelf.id }) },
        ...(step === undefined ? {} : { step }),
      };
    });
  return { sources, elsewhere, isLooking, isBlind: !parts && !isLooking, drafts };
}

function shelfWith({ shelf, others }: PartLine, count: number): Shelf | undefined {
  const able = [...(shelf ? [shelf] : []), ...others].filter((one) => one.onHand - one.reserved + one.reservedHere >= count);
  return able.find(({ reservedHere }) => reservedHere > 0) ?? able[0];
}
