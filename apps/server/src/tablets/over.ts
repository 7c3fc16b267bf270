import type { ServerEvent } from '@jubb/wire';
import type { EntityManager } from 'typeorm';
import { sessionMark } from '../common/session.js';
import { ask } from '../database/data-source.js';
import { TELL } from './tablets.sql.js';

/** Tells every process of sessions that are over with the transaction; gives what is over, for the process that ends them. */
export async function tellOver(manager: EntityManager, rows: readonly { readonly sid: string }[]): Promise<readonly ServerEvent[]> {
  const ended = rows.map(({ sid }): ServerEvent => ({ type: 'session-over', session: sessionMark(sid) }));
  for (const over of ended) await ask(manager, TELL, JSON.stringify(over));
  return ended;
}
