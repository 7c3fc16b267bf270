import type { Move } from '@jubb/sheet';
import type { MoveBody, StockView } from '@jubb/wire';

/** What takes a movement back: the other way, of the same job and batch. */
const BACK: Readonly<Record<Exclude<Move, 'count'>, Move>> = {
  receive: 'issue',
  issue: 'return',
  return: 'issue',
  reserve: 'release',
  release: 'reserve',
};

type Movement = Omit<MoveBody, 'id' | 'takenAt'>;

/** The movement that puts a line back to what it was; a count that is still to be accepted moved nothing. */
export function takenBack({ kind, quantity, jobId, batch }: Movement, before: StockView, after: StockView): Movement | undefined {
  const words = 'taken back';
  if (kind === 'count') return before.onHand === after.onHand ? undefined : { kind, quantity: before.onHand, words };
  return { kind: BACK[kind], quantity, words, ...(jobId === undefined ? {} : { jobId }), ...(batch === undefined ? {} : { batch }) };
}
