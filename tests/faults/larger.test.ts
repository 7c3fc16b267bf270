import type { JobHead } from '@jubb/book';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { chmodSync, cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { everyChain } from '../../tools/chain.mjs';
import { asOwner, isRunning, startPostgres, stopPostgres } from '../../tools/postgres.mjs';
import { HAPROXY, ensureDebian, postgresBin } from '../../tools/setup.mjs';
import { Client, entry } from '../kit/client.ts';
import { query } from '../kit/database.ts';
import { ROOT, freePort, startServer, type RunningServer } from '../kit/server.ts';
import { openStream, until } from '../kit/stream.ts';

const DOC = readFileSync(join(ROOT, 'docs/larger.md'), 'utf8');
/** A database that changes places takes its time on a busy machine. */
const PATIENCE_MS = 60_000;
const PEOPLE = ['ilka', 'bram', 'oswin', 'perla'];

let folder: string;
/** The primary and its standby. */
let [primary, standby] = ['', ''];
let standbyUrl = '';
let base = '';
const servers: RunningServer[] = [];
let haproxy: ChildProcess;

/** The blocks of a language of the document that say a word. */
function block(language: string, word: string): string {
  const blocks = [...DOC.matchAll(/^```(?<language>\w*)\n(?<text>.*?)^```$/gmsu)].map(({ groups }) => groups!);
  const found = blocks.find((one) => one['language'] === language && one['text']!.includes(word));
  if (!found) throw new Error(`docs/larger.md has no ${language} with ${word}`);
  return found['text']!;
}

beforeAll(async () => {
  ensureDebian([HAPROXY]);
  folder = mkdtempSync(join(tmpdir(), 'jubb-larger-'));
  chmodSync(folder, 0o755);
  [primary, standby] = [join(folder, 'primary'), join(folder, 'standby')];
  const { url } = await startPostgres(primary);
  await copied(url);
  ({ url: standbyUrl } = await startPostgres(standby));

  // The addresses of the document become ports of this machine.
  const ports = { pages: await freePort(), one: await freePort(), two: await freePort(), database: await freePort() };
  const places: Readonly<Record<string, number | string>> = {
    '10.0.0.10:443': ports.pages,
    '10.0.0.11:4170': ports.one,
    '10.0.0.12:4170': ports.two,
    '127.0.0.1:6432': ports.database,
    '10.0.0.21:5432': new URL(url).port,
    '10.0.0.22:5432': new URL(standbyUrl).port,
  };
  const config = Object.entries(places).reduce(
    (text, [from, port]) => text.replace(from, `127.0.0.1:${port}`),
    block('haproxy', 'defaults'),
  );
  expect(config).not.toMatch(/10\.0\.0\./u);
  writeFileSync(join(folder, 'haproxy.cfg'), config);
  haproxy = spawn('haproxy', ['-db', '-q', '-f', join(folder, 'haproxy.cfg')], { stdio: 'ignore' });
  base = `http://127.0.0.1:${ports.pages}`;
  const throughIt = Object.assign(new URL(url), { port: String(ports.database) }).toString();
  for (const port of [ports.one, ports.two]) servers.push(await startServer(throughIt, { port, env: { JUBB_PROXIES: '127.0.0.1' } }));
  for (const statement of block('sql', 'synchronous_standby_names').trim().split('\n')) await query(url, statement);
});
afterAll(async () => {
  await Promise.all(servers.map((server) => server.stop()));
  haproxy.kill();
  for (const one of [primary, standby]) stopPostgres(one, 'immediate');
  rmSync(folder, { recursive: true, force: true });
});

/** A standby out of what the primary has, as the document says it. */
async function copied(url: string): Promise<void> {
  const { port, password } = new URL(url);
  mkdirSync(standby);
  cpSync(join(primary, 'password'), join(standby, 'password'));
  writeFileSync(join(standby, 'port'), String(await freePort()));
  if (process.getuid?.() === 0) spawnSync('chown', ['-R', 'postgres:', standby]);
  const told = `host=127.0.0.1 port=${port} user=jubb password=${password} application_name=standby`;
  const made = asOwner(join(postgresBin()!, 'pg_basebackup'), ['-d', told, '-D', join(standby, 'data'), '-R', '-X', 'stream']);
  expect([made.status, made.stderr]).toEqual([0, '']);
}

/** Whether it is kept, or why not. */
async function post(client: Client, jobId: string, one: object): Promise<number> {
  try {
    return (await client.post(jobId, one)).status;
  } catch {
    return 0;
  }
}

test('what is posted at one server reaches a page at the other', async () => {
  const [one, two] = servers.map((server) => server.base) as [string, string];
  const [writer, reader] = await Promise.all([Client.as(one, 'ilka'), Client.as(two, 'bram')]);
  const [job] = await writer.get<JobHead[]>('/jobs');
  const page = await openStream(two, reader);
  await until(async () => {
    expect((await writer.post(job!.id, entry('note', { text: 'heard at the other' }))).status).toBe(200);
    return page.said().some((event) => event.type === 'entries' && event.jobId === job!.id);
  });
  page.close();
});

test('while the standby is away nothing is acknowledged, and what was sent meanwhile is kept once when it is back', async () => {
  const ilka = await Client.as(base, 'ilka');
  const [job] = await ilka.get<JobHead[]>('/jobs');
  stopPostgres(standby, 'fast');
  const held = entry('note', { text: 'while there is one alone' });
  const { status, body } = await ilka.post(job!.id, held);
  expect([status, body.title]).toEqual([503, expect.stringContaining('database does not answer')]);
  await startPostgres(standby);
  await until(async () => (await post(ilka, job!.id, held)) === 200, PATIENCE_MS);
  const { rows } = await query(standbyUrl, `SELECT count(*)::int AS kept FROM entry WHERE id = '${held.id}'`);
  expect(rows).toEqual([{ kept: 1 }]);
});

test('the primary and a server are killed under people who record: nothing that was acknowledged is missing', async () => {
  const clients = await Promise.all(PEOPLE.map((login) => Client.as(base, login)));
  const jobs: string[] = [];
  for (const client of clients) jobs.push((await client.bookedOn('harrowmere-th6-front-hub')).id);
  const acknowledged: string[] = [];
  let [isOver, refused, last, gap] = [false, 0, Date.now(), 0];
  const recording = clients.map(async (client, index) => {
    while (!isOver) {
      const note = entry('note', { text: `by ${PEOPLE[index]}` });
      // As a tablet does: the same again until it is kept.
      for (;;) {
        const status = await post(client, jobs[index]!, note);
        if (status === 200) break;
        refused += 1;
        await wait(100);
      }
      acknowledged.push(note.id);
      gap = Math.max(gap, Date.now() - last);
      last = Date.now();
    }
  });
  await until(() => acknowledged.length > 100, PATIENCE_MS);
  servers[0]!.child.kill('SIGKILL');
  const before = acknowledged.length;
  await until(() => acknowledged.length > before + 100, PATIENCE_MS);

  const [pid] = readFileSync(join(primary, 'data', 'postmaster.pid'), 'utf8').split('\n');
  process.kill(Number(pid), 'SIGKILL');
  gap = 0;
  expect(asOwner(join(postgresBin()!, 'pg_ctl'), ['-D', join(standby, 'data'), '-w', 'promote']).status).toBe(0);
  const after = acknowledged.length;
  await until(() => acknowledged.length > after + 100, PATIENCE_MS);

  // A primary that comes back by itself is not asked again.
  rmSync(join(primary, 'data', 'postmaster.pid'), { force: true });
  await startPostgres(primary);
  await wait(1500);
  const again = acknowledged.length;
  await until(() => acknowledged.length > again + 50, PATIENCE_MS);
  expect(isRunning(primary)).toBe(true);
  isOver = true;
  await Promise.all(recording);

  const { rows } = await query(standbyUrl, 'SELECT id FROM entry');
  const kept = new Set(rows.map(({ id }: { id: string }) => id));
  expect(kept.size).toBe(rows.length);
  expect(acknowledged.filter((id) => !kept.has(id))).toEqual([]);
  expect(await everyChain(standbyUrl)).toEqual([]);
  expect(refused).toBeGreaterThan(0);
  console.info(
    `${acknowledged.length} acknowledged, ${refused} sent again; at most ${(gap / 1000).toFixed(1)} s without an acknowledgement`,
  );
});
