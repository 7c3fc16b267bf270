import type { HealthView } from '@jubb/wire';
import { spawnSync, type SpawnSyncReturns } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, realpathSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { asVersion, checkout } from '../kit/checkout.ts';
import { freePort } from '../kit/server.ts';

let folder: string;
let older: string;
let port: string;

/** Each asks whatever server is there then. */
const ONCE = { connection: 'close' };

beforeAll(async () => {
  folder = realpathSync(mkdtempSync(join(tmpdir(), 'jubb-update-')));
  chmodSync(folder, 0o755);
  older = checkout(join(folder, 'older'));
  port = String(await freePort());
});
afterAll(() => {
  jubb(older, ['stop']);
  rmSync(folder, { recursive: true, force: true });
});

function jubb(place: string, args: readonly string[]): SpawnSyncReturns<string> {
  const { JUBB_DATABASE_URL: _, JUBB_HOME: __, ...rest } = process.env;
  return spawnSync(join(place, 'jubb'), args, { encoding: 'utf8', cwd: '/', env: { ...rest, NODE_OPTIONS: '', JUBB_PORT: port } });
}

async function health(): Promise<HealthView> {
  return (await fetch(`http://127.0.0.1:${port}/api/v1/health`, { headers: ONCE })).json() as Promise<HealthView>;
}

async function logsIn(login: string): Promise<boolean> {
  const { ok } = await fetch(`http://127.0.0.1:${port}/api/v1/session`, {
    method: 'POST',
    headers: { ...ONCE, 'content-type': 'application/json', 'x-jubb-csrf': 'none' },
    body: JSON.stringify({ login, password: 'bench-417' }),
  });
  return ok;
}

test('a folder that cannot be updated to is refused before anything is stopped', async () => {
  expect(jubb(older, ['update']).stderr).toContain('To which one?');
  expect(jubb(older, ['update', folder]).stderr).toContain('is no checkout of Jubb that can be updated to');
  expect(jubb(older, ['update', older]).stderr).toContain('is the one that runs');
  const oldest = checkout(join(folder, 'oldest'));
  expect(jubb(older, ['update', oldest]).stderr).toContain('There is no shop in');
  expect(jubb(older, ['start', '--demo', 'small']).status).toBe(0);
  rmSync(join(oldest, 'apps/server/src/database/migrations/1765150000000-shop-logo.ts'));
  expect(jubb(older, ['update', oldest]).stderr).toContain('is older than the one that runs');
  mkdirSync(join(oldest, '.jubb/postgres'), { recursive: true });
  expect(jubb(older, ['update', oldest]).stderr).toContain('There is a shop of its own in');
  expect(await health()).toMatchObject({ database: 'up' });
});

test('a newer version that does not come up leaves the shop as it was', async () => {
  const { version } = await health();
  const newer = checkout(join(folder, 'failing'));
  asVersion(newer, '9.1.0', "UPDATE person SET login = login || '-gone'", "throw new Error('this one cannot serve');");
  const failed = jubb(older, ['update', newer]);
  expect([failed.status, failed.stderr]).toEqual([1, expect.stringContaining('The new version does not come up; the shop is as it was')]);
  expect(failed.stderr).toMatch(/: this one cannot serve$/mu);
  expect(await health()).toMatchObject({ version, database: 'up' });
  expect([await logsIn('oswin'), await logsIn('oswin-gone')]).toEqual([true, false]);
  expect(jubb(older, ['update', '--back']).stderr).toContain('nothing to go back to');
  expect(await health()).toMatchObject({ version });
  // And it can be tried again, though the database of the first try was changed.
  expect(jubb(older, ['update', newer]).status).toBe(1);
  expect(await logsIn('oswin')).toBe(true);
});

test('after one that was cut off, the shop can go back', async () => {
  const { JUBB_DATABASE_URL: _, JUBB_HOME: __, ...env } = process.env;
  jubb(older, ['stop']);
  const kept = spawnSync(process.execPath, [join(older, 'tools/before.mjs'), 'keep'], {
    encoding: 'utf8',
    env: { ...env, NODE_OPTIONS: '' },
  });
  expect([kept.status, kept.stderr]).toEqual([0, '']);
  expect(jubb(older, ['update', '--back']).stdout).toContain('as it was before the update that was cut off');
  expect(await logsIn('oswin')).toBe(true);
});

test('a newer version that comes up has the shop from then on, and the one of before lets it be', async () => {
  const newer = checkout(join(folder, 'newer'));
  asVersion(newer, '9.2.0', 'CREATE TABLE later (id int)');
  const updated = jubb(older, ['update', newer]);
  expect([updated.stderr, updated.stdout]).toEqual([
    'Building the new version …\nNo backup is set up here: ./jubb backup FOLDER\n',
    `Updated: version 9.2.0 answers. From now on: ${newer}/jubb start\n`,
  ]);
  expect(await health()).toMatchObject({ version: '9.2.0', database: 'up' });
  expect(await logsIn('oswin')).toBe(true);

  expect(jubb(newer, ['stop']).stdout).toContain('stopped');
  expect(jubb(older, ['start']).stderr).toContain('A newer version of Jubb has been at this shop (Later9900000000000)');
  expect(jubb(newer, ['start']).status).toBe(0);
  expect(await health()).toMatchObject({ version: '9.2.0' });
  jubb(newer, ['stop']);
});
