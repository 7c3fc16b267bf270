import type { JobView } from '@jubb/book';
import type { ChainView, SheetLine, SheetView } from '@jubb/wire';
import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { hash as argon2id } from '@node-rs/argon2';
import { DataSource } from 'typeorm';
import { Foundation1764000000000 } from '../../apps/server/src/database/migrations/1764000000000-foundation.ts';
import { contentHash } from '../../apps/server/src/entries/entry-hash.ts';
import { Client } from '../kit/client.ts';
import { freshDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';

let database: TestDatabase;
let server: RunningServer | undefined;

beforeAll(async () => {
  database = await freshDatabase();
});
afterAll(async () => {
  await server?.stop();
  await database.drop();
});

const SHEET = new URL('../../apps/server/demo/sheets/harrowmere-th6-front-hub.json', import.meta.url);
const JOB = '01a21084-64b6-774d-bffd-63e56751cc53';

/** A shop as the first release left it: a person, a sheet without the later fields, a job with its entries. */
async function shopOfTheFirstRelease(): Promise<void> {
  const first = await new DataSource({ type: 'postgres', url: database.url, migrations: [Foundation1764000000000] }).initialize();
  await first.runMigrations();
  await first.destroy();
  const {
    kits: _,
    fastenings: __,
    tasks: ___,
    features: ____,
    variants: _____,
    complaints: ______,
    causes,
    ...file
  } = JSON.parse(readFileSync(SHEET, 'utf8')) as Record<string, unknown>;
  expect(causes).toBeDefined();
  file['steps'] = (file['steps'] as { tasks?: unknown }[]).filter(({ tasks }) => tasks === undefined);
  delete file['obligations'];
  const password = await argon2id('bench-417');
  await database.query(`INSERT INTO person (name, login, role, password_hash) VALUES ('Ilka Varne', 'ilka', 'mechanic', $1)`, [password]);
  await database.query(`INSERT INTO customer (name) VALUES ('Valdorn')`);
  await database.query(`INSERT INTO machine (customer_id, name, serial) SELECT id, 'Tractor', 'T1' FROM customer`);
  await database.query(`INSERT INTO unit (machine_id, name, serial) SELECT id, 'Hub', 'H1' FROM machine`);
  await database.query(`INSERT INTO sheet_revision (key, revision, status, file, hash) VALUES ('old-hub', 1, 'approved', $1, 'h')`, [file]);
  await database.query(
    `INSERT INTO job (id, unit_id, sheet_revision_id, complaint, promise, estimate_minor) SELECT $1, unit.id, sheet_revision.id, 'Rumbles', now(), 100 FROM unit, sheet_revision`,
    [JOB],
  );
  const { rows } = await database.query('SELECT id FROM person');
  const personId = (rows[0] as { id: string }).id;
  const content = {
    id: '01a21084-64b6-774d-bffd-63e56751cc54',
    jobId: JOB,
    personId,
    kind: 'note' as const,
    payload: { text: 'kept before the change' },
    working: null,
    step: null,
    toolId: null,
    strikes: null,
    takenAt: '2026-11-20T07:00:00.000Z',
  };
  await database.query('SELECT * FROM keep_entries($1, $2, $3)', [
    JOB,
    personId,
    JSON.stringify([{ ...content, contentHash: contentHash(content) }]),
  ]);
}

test('a shop of the first release is carried forward with its sheets, jobs and entries', async () => {
  await shopOfTheFirstRelease();
  server = await startServer(database.url);
  const ilka = await Client.as(server.base, 'ilka');
  const [sheet] = await ilka.get<SheetLine[]>('/sheets');
  expect(sheet).toMatchObject({ key: 'old-hub', title: 'Harrowmere TH-6 front wheel hub', make: 'Harrowmere', status: 'approved' });
  expect(sheet?.words).toContain('ht6-4410');
  expect((await ilka.get<string[]>('/sheets/find?text=tongued')).length).toBe(1);
  expect(await ilka.get<SheetView>(`/sheets/${sheet?.revisionId ?? ''}`)).toMatchObject({ version: 1, jobs: 1 });
  const job = await ilka.get<JobView>(`/jobs/${JOB}`);
  expect(job).toMatchObject({ scope: null, sheet: { revision: 1, notOpened: [], newer: null } });
  expect(job.entries[0]?.payload).toEqual({ text: 'kept before the change' });
  expect(await ilka.get<ChainView>(`/jobs/${JOB}/chain`)).toMatchObject({ whole: true, entries: 1 });
});
