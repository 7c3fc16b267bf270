import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { DataSource } from 'typeorm';
import { makeDataSource, migrate } from '../../apps/server/dist/database/data-source.js';
import { freshDatabase, type TestDatabase } from '../kit/database.ts';

/** Tables of packages that keep their own: sessions, tries at log-ins, migrations. */
const KEPT_BY_OTHERS = ['session', 'rate_limit', 'migrations'];

let database: TestDatabase;
let dataSource: DataSource;

beforeAll(async () => {
  database = await freshDatabase();
  await migrate(database.url);
  dataSource = await makeDataSource(database.url).initialize();
});
afterAll(async () => {
  await dataSource.destroy();
  await database.drop();
});

/** What the manual calls a type, as its catalogue does (PostgreSQL manual, table 8.1). */
const CATALOGUE: Readonly<Record<string, string>> = {
  int: 'integer',
  int4: 'integer',
  float8: 'double precision',
  timestamptz: 'timestamp with time zone',
};

test('each table has an entity, with every column as the migrations left it', async () => {
  const { rows } = await database.query(
    `SELECT c.table_name || '.' || c.column_name AS column,
       CASE c.data_type WHEN 'ARRAY' THEN substr(c.udt_name, 2) || '[]' ELSE c.data_type END AS type, c.is_nullable = 'YES' AS "isNullable"
     FROM information_schema.columns c JOIN information_schema.tables t USING (table_schema, table_name)
     WHERE c.table_schema = 'public' AND t.table_type = 'BASE TABLE' AND NOT c.table_name = ANY ($1) ORDER BY 1`,
    [KEPT_BY_OTHERS],
  );
  const mapped = dataSource.entityMetadatas
    .flatMap(({ tableName, columns }) =>
      columns.map(({ databaseName, type, isArray, isNullable }) => ({
        column: `${tableName}.${databaseName}`,
        type: `${CATALOGUE[String(type)] ?? String(type)}${isArray ? '[]' : ''}`,
        isNullable,
      })),
    )
    .toSorted((a, b) => (a.column < b.column ? -1 : 1));
  const sorted = (rows as typeof mapped).toSorted((a, b) => (a.column < b.column ? -1 : 1));
  expect(sorted.length).toBeGreaterThan(150);
  expect(mapped).toEqual(sorted);
});
