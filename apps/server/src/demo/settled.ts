import pg from 'pg';
import type { Statement } from '../database/data-source.js';
import { UNFINISHED } from './demo-size.js';
import { IS_MADE, IS_SETTLED } from './demo.sql.js';

/**
 * Whether somebody is in the database at this address, and no demo is being made or was left half-made; a new one has no tables
 * yet. Asked before anything else is read: a first start makes the demo while the server puts itself together.
 */
export async function isSettled(url: string): Promise<boolean> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const isSo = async ({ text }: Statement, values: readonly unknown[] = []): Promise<boolean> =>
      (await client.query<{ isSo: boolean }>(text, [...values])).rows[0]!.isSo;
    return (await isSo(IS_MADE)) && (await isSo(IS_SETTLED, [UNFINISHED]));
  } finally {
    await client.end();
  }
}
