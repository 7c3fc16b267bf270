import { DataSource, type EntityManager, type QueryRunner } from 'typeorm';
import pg, { type Pool, type PoolClient } from 'pg';
import * as entities from './entities/index.js';
import { Foundation1764000000000 } from './migrations/1764000000000-foundation.js';
import { Sheets1764050000000 } from './migrations/1764050000000-sheets.js';
import { Bench1764100000000 } from './migrations/1764100000000-bench.js';
import { Stores1764150000000 } from './migrations/1764150000000-stores.js';
import { ShopBook1764200000000 } from './migrations/1764200000000-shop-book.js';
import { CustomersWord1764250000000 } from './migrations/1764250000000-customers-word.js';
import { JobsAndShelves1764300000000 } from './migrations/1764300000000-jobs-and-shelves.js';
import { OutOfTheShop1764350000000 } from './migrations/1764350000000-out-of-the-shop.js';
import { EntryVersions1764400000000 } from './migrations/1764400000000-entry-versions.js';
import { KeepIf1764450000000 } from './migrations/1764450000000-keep-if.js';
import { KeepSince1764500000000 } from './migrations/1764500000000-keep-since.js';
import { Finding1764550000000 } from './migrations/1764550000000-finding.js';
import { KeepBatches1764600000000 } from './migrations/1764600000000-keep-batches.js';
import { WayInAndTools1764650000000 } from './migrations/1764650000000-way-in-and-tools.js';
import { PeopleAndChanges1764700000000 } from './migrations/1764700000000-people-and-changes.js';
import { Customers1764850000000 } from './migrations/1764850000000-customers.js';
import { OwnShop1764900000000 } from './migrations/1764900000000-own-shop.js';
import { Hours1764950000000 } from './migrations/1764950000000-hours.js';
import { Walk1765000000000 } from './migrations/1765000000000-walk.js';
import { SecondFactor1765050000000 } from './migrations/1765050000000-second-factor.js';
import { OwnSuppliers1765100000000 } from './migrations/1765100000000-own-suppliers.js';
import { ShopLogo1765150000000 } from './migrations/1765150000000-shop-logo.js';
import { Benches1765200000000 } from './migrations/1765200000000-benches.js';
import { Care1764800000000 } from './migrations/1764800000000-care.js';
import { RubberOnTheShelf1764750000000 } from './migrations/1764750000000-rubber-on-the-shelf.js';

/** Any number that only Jubb uses: processes that start together migrate one after the other. */
const MIGRATION_LOCK = 20_117;

/**
 * A connection that the database drops must not take the process down: an idle one tells the pool, one that is in
 * somebody's hands tells itself, and whoever holds it is refused at the next query.
 */
class LastingClient extends pg.Client {
  constructor(config: pg.ClientConfig) {
    super(config);
    this.on('error', () => undefined);
  }
}

/** A machine that is busy with something else takes its time for a connection; a database that is not there says so at once. */
const CONNECT_MS = 15_000;
const PATIENT_CONNECT_MS = 60_000;
/** What the database may take for one statement, and how long an answer is waited for, ms. */
const LIMITS = { statement_timeout: 20_000, query_timeout: 25_000, idle_in_transaction_session_timeout: 60_000 };

/** `isPatient`: for what changes the tables, which takes as long as it takes. */
export function makeDataSource(url: string, isPatient = false): DataSource {
  return new DataSource({
    type: 'postgres',
    url,
    entities: Object.values(entities),
    migrations: [
      Foundation1764000000000,
      Sheets1764050000000,
      Bench1764100000000,
      Stores1764150000000,
      ShopBook1764200000000,
      CustomersWord1764250000000,
      JobsAndShelves1764300000000,
      OutOfTheShop1764350000000,
      EntryVersions1764400000000,
      KeepIf1764450000000,
      KeepSince1764500000000,
      Finding1764550000000,
      KeepBatches1764600000000,
      WayInAndTools1764650000000,
      PeopleAndChanges1764700000000,
      RubberOnTheShelf1764750000000,
      Care1764800000000,
      Customers1764850000000,
      OwnShop1764900000000,
      Hours1764950000000,
      Walk1765000000000,
      SecondFactor1765050000000,
      OwnSuppliers1765100000000,
      ShopLogo1765150000000,
      Benches1765200000000,
    ],
    synchronize: false,
    logging: false,
    poolSize: 16,
    connectTimeoutMS: isPatient ? PATIENT_CONNECT_MS : CONNECT_MS,
    applicationName: 'jubb',
    extra: { Client: LastingClient, ...(isPatient ? {} : LIMITS) },
    poolErrorHandler: () => undefined,
  });
}

/** Brings the database up to this version; refuses one that a newer version has been at, whose tables it does not know. */
export async function migrate(url: string): Promise<void> {
  const dataSource = await makeDataSource(url, true).initialize();
  const runner = dataSource.createQueryRunner();
  try {
    await runner.query('SELECT pg_advisory_lock($1)', [MIGRATION_LOCK]);
    const known = new Set(dataSource.migrations.map(({ name, constructor }) => name ?? constructor.name));
    const later = (await doneMigrations(runner)).find((name) => !known.has(name));
    if (later !== undefined)
      throw new Error(`A newer version of Jubb has been at this shop (${later}): start that one, or restore a backup from before it`);
    await dataSource.runMigrations();
    await runner.query('SELECT pg_advisory_unlock($1)', [MIGRATION_LOCK]);
  } finally {
    await runner.release();
    // Whatever went wrong, the lock ends with the connection.
    await dataSource.destroy();
  }
}

async function doneMigrations(runner: QueryRunner): Promise<readonly string[]> {
  if (!(await runner.hasTable('migrations'))) return [];
  return ((await runner.query('SELECT name FROM migrations ORDER BY id')) as readonly { name: string }[]).map(({ name }) => name);
}

/** A statement that every connection prepares once, for what tablets ask all day. */
export interface Statement {
  readonly name: string;
  readonly text: string;
}

/** Asks as part of the transaction that the manager stands for; by the data source's own manager, outside of any. */
export async function ask<T>(manager: EntityManager, { name, text }: Statement, ...values: readonly unknown[]): Promise<readonly T[]> {
  const on = manager.queryRunner ? ((await manager.queryRunner.connect()) as PoolClient) : poolOf(manager.dataSource);
  const { rows } = await on.query({ name, text, values: [...values] });
  return rows as T[];
}

/** The rows of a statement as JSON text that the database made: a long list is not taken apart and put together again here. */
export async function askJson(manager: EntityManager, { name, text }: Statement, ...values: readonly unknown[]): Promise<string> {
  const [row] = await ask<{ json: string }>(
    manager,
    { name: `${name}-json`, text: `SELECT coalesce(json_agg(found), '[]')::text AS json FROM (${text}) found` },
    ...values,
  );
  return row?.json ?? '[]';
}

/** Two that lock the same things the other way round: the database ends one of them, and nothing of it is kept. */
const DEADLOCK = '40P01';
const MOST_TRIES = 3;

/**
 * All of the work or nothing; services hand the manager on, so that what they do is one. Begun anew when the database
 * ended it for a deadlock; so it does nothing but ask the database.
 */
export async function inTransaction<T>(dataSource: DataSource, work: (manager: EntityManager) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries += 1) {
    try {
      return await onceInTransaction(dataSource, work);
    } catch (error) {
      if ((error as { code?: unknown }).code !== DEADLOCK || tries === MOST_TRIES) throw error;
    }
  }
}

async function onceInTransaction<T>(dataSource: DataSource, work: (manager: EntityManager) => Promise<T>): Promise<T> {
  const runner = dataSource.createQueryRunner();
  const client = (await runner.connect()) as PoolClient & { end(): Promise<void> };
  try {
    await runner.startTransaction();
    const result = await work(runner.manager);
    await runner.commitTransaction();
    return result;
  } catch (error) {
    // A connection that cannot even roll back is not given back for use: the pool lets one that ends go.
    if (runner.isTransactionActive) await runner.rollbackTransaction().catch(() => void client.end().catch(() => undefined));
    throw error;
  } finally {
    await runner.release();
  }
}

/** Holds everybody else up who asks for the same name, until the transaction is over. */
export async function lockName(manager: EntityManager, name: string): Promise<void> {
  await manager.query('SELECT pg_advisory_xact_lock(hashtext($1))', [name]);
}

/** A piece of text as it is looked for by LIKE, wherever it stands. */
export function anywhere(piece: string): string {
  return `%${piece.replace(/[\\%_]/gu, '\\$&')}%`;
}

/** The driver's own pool, so that session store and rate limiter need no second one. */
export function poolOf(dataSource: DataSource): Pool {
  return (dataSource.driver as unknown as { master: Pool }).master;
}
