import type { EntityManager } from 'typeorm';
import { Paper } from '../database/entities/index.js';
import { badInput } from './problem.js';

/** Refuses what names a paper that was never brought in; what names none is all right. */
export async function checkPaper(manager: EntityManager, paperId: string | undefined): Promise<void> {
  if (paperId !== undefined && !(await manager.existsBy(Paper, { id: paperId })))
    throw badInput([{ field: 'paperId', given: paperId, allowed: 'is not a paper of this shop: bring its PDF in first' }]);
}
