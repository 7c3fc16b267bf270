import type { MoveBody } from '@jubb/wire';
import { v7 as uuid } from 'uuid';
import { nowIso } from '../link/client.ts';

/** A movement of a stock line for a job, taken now. */
export function moveOf(kind: MoveBody['kind'], quantity: number, jobId: string): MoveBody {
  return { id: uuid(), kind, quantity, jobId, takenAt: nowIso() };
}
