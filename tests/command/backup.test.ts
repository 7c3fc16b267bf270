import type { CareView, JobView } from '@jubb/book';
import type { ChainView } from '@jubb/wire';
import { spawnSync, type SpawnSyncReturns } from 'node:child_process';
import { chmodSync, cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, statSync, truncateSync } from 'node:fs';
import { once } from 'node:events';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { dueAtNight, giveAtNight } from '../../tools/night.mjs';
import { Client, entry } from '../kit/client.ts';
import { until } from '../kit/stream.ts';
import { ROOT, freePort } from '../kit/server.ts';

const WORDS = 'seven larks over the wet quarry';
let folder: string;
let repository: string;
/** Of each home its own: a client keeps the line to one that is gone. */
const ports = new Map<string, string>();

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'jubb-backup-'));
  chmodSync(folder, 0o755);
  repository = join(folder, 'disk', 'jubb');
  for (const home of ['shop', 'again', 'last']) ports.set(home, String(await freePort()));
});
afterAll(() => {
  for (const home of ['shop', 'again', 'last']) if (existsSync(join(folder, home))) jubb(home, ['stop']);
  rmSync(folder, { recursive: true, force: true });
});

function jubb(home: string, args: readonly string[], words = WORDS): SpawnSyncReturns<string> {
  const { JUBB_DATABASE_URL: _, ...rest } = process.env;
  const own = join(folder, home);
  if (!existsSync(own)) mkdirSync(own, { mode: 0o755 });
  const env = { ...rest, NODE_OPTIONS: '', JUBB_HOME: own, JUBB_PORT: ports.get(home) ?? '', JUBB_BACKUP_WORDS: words };
  return spawnSync(join(ROOT, 'jubb'), args, { encoding: 'utf8', env, cwd: '/' });
}

/** What an ordinary end says: one line, and no stack. */
function refusal(result: SpawnSyncReturns<string>): string {
  expect(result.status).toBe(1);
  expect(result.stderr).not.toMatch(/^\s+at /mu);
  return result.stderr.trim().split('\n').at(-1) ?? '';
}

function works(result: SpawnSyncReturns<string>): string {
  if (result.status !== 0) throw new Error(`${result.stdout}${result.stderr}`);
  return result.stdout;
}

const base = (home: string): string => `http://127.0.0.1:${ports.get(home)}`;
const notesOf = ({ entries }: JobView): readonly string[] => entries.flatMap((kept) => (kept.kind === 'note' ? [kept.payload.text] : []));

/** The file of a backup that is cut: the largest of what was copied. */
function largest(within: string): string {
  const files = readdirSync(within, { recursive: true, withFileTypes: true }).filter((one) => one.isFile());
  const paths = files.map((one) => join(one.parentPath, one.name)).filter((path) => path.includes('pg_data'));
  return paths.toSorted((one, other) => statSync(other).size - statSync(one).size)[0]!;
}

const wholeSecond = (): number => Math.floor(Date.now() / 1000);

test('a shop is backed up, destroyed, and brought back to a minute and to its last act; what cannot be says why', async () => {
  expect(refusal(jubb('shop', ['backup', repository]))).toContain('There is no shop here yet');
  works(jubb('shop', ['start', '--demo', 'small']));
  expect(refusal(jubb('shop', ['backup']))).toContain('Where to?');
  expect(refusal(jubb('shop', ['rehearse']))).toContain('No backup is set up');
  const status = jubb('shop', ['status']);
  expect([status.status, status.stdout]).toEqual([1, expect.stringMatching(/^NO {2}backup +not set up/mu)]);

  // The words are said once, where it is set up; what is written from then on goes there by itself.
  const first = works(jubb('shop', ['backup', repository]));
  expect(first).toContain(WORDS);
  // Backups are dated to the second: a time within the one in which it ended is not after it yet.
  const ended = wholeSecond();
  await until(() => wholeSecond() > ended);
  expect(refusal(jubb('shop', ['backup', join(folder, 'elsewhere')]))).toContain(`Backups go to ${repository}`);
  const ilka = await Client.as(base('shop'), 'ilka');
  const { id } = await ilka.jobNumbered(402);
  const note = async (text: string): Promise<void> => void (await ilka.made(`/jobs/${id}/entries`, { entries: [entry('note', { text })] }));
  await note('before the fire');
  const between = new Date();
  while (Date.now() <= between.getTime() + 20) await ilka.get(`/jobs/${id}`);
  await note('what should not have been');
  const second = works(jubb('shop', ['backup']));
  expect(second).not.toContain(WORDS);

  // In the night the server has it made, with the address of its own database about it.
  const own = join(folder, 'shop');
  const at = (hour: number): Date => new Date(2027, 2, 10, hour, 5);
  expect([dueAtNight(own, at(2), {}), dueAtNight(own, at(3), {}), dueAtNight(own, at(4), {})]).toEqual([['backup'], ['walk'], []]);
  expect(dueAtNight(own, at(2), { backup: at(2).toDateString() })).toEqual([]);
  expect(dueAtNight(join(folder, 'again'), at(2), {})).toEqual([]);
  const made = giveAtNight('backup', {
    ...process.env,
    NODE_OPTIONS: '',
    JUBB_HOME: own,
    JUBB_PORT: ports.get('shop'),
    JUBB_DATABASE_URL: 'postgres://jubb@127.0.0.1/jubb',
  });
  expect((await once(made, 'close'))[0]).toBe(0);

  // Brought back beside it, held against it, and told to the foreman.
  expect(works(jubb('shop', ['rehearse']))).toMatch(/^3 jobs and \d+ entries came back whole, all 3 chains hold/u);
  const oswin = await Client.as(base('shop'), 'oswin');
  expect(await oswin.get<CareView[]>('/care')).toEqual([
    expect.objectContaining({ what: 'backup', isGood: true }),
    expect.objectContaining({ what: 'rehearsal', isGood: true, words: expect.stringContaining('came back whole') }),
  ]);
  expect((await ilka.call('GET', '/care')).status).toBe(403);
  expect(works(jubb('shop', ['status']))).not.toMatch(/^NO/mu);

  // Nothing is restored over a shop, nor from nothing, nor to a time that is none.
  expect(refusal(jubb('shop', ['restore', repository]))).toContain('nothing was touched');
  works(jubb('shop', ['stop']));
  expect(refusal(jubb('again', ['restore', join(folder, 'disk')]))).toContain('holds no backup of Jubb');
  expect(refusal(jubb('again', ['restore', repository, '--to', 'yesterday']))).toContain('a time such as');
  expect(refusal(jubb('again', ['restore', repository, '--to', '2999-01-01 00:00']))).toContain('still to come');
  expect(refusal(jubb('again', ['restore', repository, '--to', '2020-01-01 00:00']))).toContain('no backup from before');
  expect(refusal(jubb('again', ['restore', repository], 'seven larks over the wet quarrx'))).toContain('do not open the backup');
  expect(existsSync(join(folder, 'again', 'postgres'))).toBe(false);
  const cut = join(folder, 'cut');
  cpSync(repository, cut, { recursive: true });
  if (process.getuid?.() === 0) spawnSync('chown', ['-R', 'postgres:', cut]);
  truncateSync(largest(cut), 5000);
  expect(refusal(jubb('again', ['restore', cut]))).toContain('damaged or cut off');
  expect(existsSync(join(folder, 'again', 'postgres'))).toBe(false);

  // The machine burns.
  rmSync(join(folder, 'shop'), { recursive: true, force: true });
  works(jubb('again', ['restore', repository, '--to', between.toISOString()]));
  works(jubb('again', ['start']));
  const early = await Client.as(base('again'), 'ilka');
  expect(notesOf(await early.get<JobView>(`/jobs/${id}`))).toContain('before the fire');
  expect(notesOf(await early.get<JobView>(`/jobs/${id}`))).not.toContain('what should not have been');
  expect(await early.get<ChainView>(`/jobs/${id}/chain`)).toMatchObject({ whole: true });
  works(jubb('again', ['stop']));
  works(jubb('last', ['restore', repository]));
  works(jubb('last', ['start']));
  const late = await Client.as(base('last'), 'ilka');
  expect(notesOf(await late.get<JobView>(`/jobs/${id}`))).toContain('what should not have been');
  expect(await late.get<ChainView>(`/jobs/${id}/chain`)).toMatchObject({ whole: true });
  // It goes on as a shop: its next entry is kept, and its next backup is its own.
  await late.made(`/jobs/${id}/entries`, { entries: [entry('note', { text: 'after it' })] });
  expect(works(jubb('last', ['backup', join(folder, 'disk', 'next')]))).toContain('Backed up');
});
