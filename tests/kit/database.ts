import { randomUUID } from 'node:crypto';
import pg from 'pg';

/** A database of its own for one test file, on the cluster that `./jubb test` started. */
export async function freshDatabase(): Promise<{
  readonly url: string;
  query(text: string, values?: unknown[]): Promise<pg.QueryResult>;
  drop(): Promise<void>;
}> {
  const base = process.env['JUBB_TEST_DATABASE_URL'];
  if (!base) throw new Error('run the tests with ./jubb test, which starts the database');
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  await query(base, `CREATE DATABASE ${name}`);
  const url = Object.assign(new URL(base), { pathname: `/${name}` }).toString();
  return {
    url,
    query: (text, values) => query(url, text, values),
    drop: async () => {
      await query(base, `DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
    },
  };
}

export async function query(url: string, text: string, values: unknown[] = []): Promise<pg.QueryResult> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await client.query(text, values);
  } finally {
    await client.end();
  }
}
