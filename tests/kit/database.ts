import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { startServer } from './server.ts';

export interface TestDatabase {
  readonly url: string;
  query(text: string, values?: unknown[]): Promise<pg.QueryResult>;
  drop(): Promise<void>;
}

/** The small demo as it is just made; every database of it is a copy. */
const DEMO = 'small_demo';
/** Held while it is made and copied: nothing may be in it then. */
const DEMO_LOCK = 4170;

/** A database of its own for one test file, with nothing in it, on the cluster that `./jubb test` started. */
export async function freshDatabase(): Promise<TestDatabase> {
  const name = newName();
  await query(cluster(), `CREATE DATABASE ${name}`);
  return opened(name);
}

/** A database of its own with the small demo in it, which is made once in a run. */
export async function demoDatabase(): Promise<TestDatabase> {
  const name = newName();
  const client = new pg.Client({ connectionString: cluster() });
  await client.connect();
  try {
    await client.query('SELECT pg_advisory_lock($1)', [DEMO_LOCK]);
    const { rowCount } = await client.query('SELECT 1 FROM pg_database WHERE datname = $1', [DEMO]);
    if (!rowCount) {
      const making = newName();
      await client.query(`CREATE DATABASE ${making}`);
      await (await startServer(addressOf(making))).stop();
      await client.query(`ALTER DATABASE ${making} RENAME TO ${DEMO}`);
    }
    await client.query(`CREATE DATABASE ${name} TEMPLATE ${DEMO}`);
  } finally {
    await client.end();
  }
  return opened(name);
}

function opened(name: string): TestDatabase {
  const url = addressOf(name);
  return {
    url,
    query: (text, values) => query(url, text, values),
    drop: async () => {
      await query(cluster(), `DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
    },
  };
}

function newName(): string {
  return `test_${randomUUID().replaceAll('-', '')}`;
}

function addressOf(name: string): string {
  return Object.assign(new URL(cluster()), { pathname: `/${name}` }).toString();
}

function cluster(): string {
  const base = process.env['JUBB_TEST_DATABASE_URL'];
  if (!base) throw new Error('run the tests with ./jubb test, which starts the database');
  return base;
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
