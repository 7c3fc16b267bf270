import type { HealthView } from '@jubb/wire';
import { spawn, spawnSync, type SpawnSyncReturns } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { workings } from '@jubb/core';
import { OWN_SHOP } from '../kit/client.ts';
import { ROOT, freePort } from '../kit/server.ts';

let home: string;

beforeAll(() => {
  home = mkdtempSync(join(tmpdir(), 'jubb-command-'));
  chmodSync(home, 0o755);
});
afterAll(() => {
  jubb(['stop']);
  rmSync(home, { recursive: true, force: true });
});

function environment(more: Readonly<Record<string, string>>): NodeJS.ProcessEnv {
  const { JUBB_DATABASE_URL: _, ...rest } = process.env;
  return { ...rest, NODE_OPTIONS: '', JUBB_HOME: home, ...more };
}

function jubb(args: readonly string[], env: Readonly<Record<string, string>> = {}): SpawnSyncReturns<string> {
  return spawnSync(join(ROOT, 'jubb'), args, { encoding: 'utf8', env: environment(env), cwd: '/' });
}

/** What an ordinary end says: one line, and no stack. */
function lineOf(result: SpawnSyncReturns<string>): string {
  const lines = result.stderr.trim().split('\n');
  expect(result.stderr).not.toMatch(/^\s+at /mu);
  return lines.at(-1) ?? '';
}

describe('the one command', () => {
  test('help lists what there is, and another word is refused', () => {
    const { stdout } = jubb(['help']);
    for (const command of ['start', 'stop', 'test', 'bench', 'shots', 'JUBB_PORT', 'JUBB_HOME', 'JUBB_DATABASE_URL'])
      expect(stdout).toContain(command);
    const wrong = jubb(['begin']);
    expect(wrong.status).toBe(1);
    expect(lineOf(wrong)).toContain('"begin" is not a command');
  });

  test('start serves the demo and says where and for whom; again it finds it running; stop ends all of it', async () => {
    const port = String(await freePort());
    const first = jubb(['start'], { JUBB_PORT: port });
    expect([first.status, first.stderr]).toEqual([0, expect.stringMatching(/Making the database …\nMaking the demo …\n$/u)]);
    expect(first.stdout).toContain(`http://127.0.0.1:${port}`);
    for (const login of ['ilka', 'oswin', 'perla', 'joss', 'bench-417']) expect(first.stdout).toContain(login);
    const health = async (): Promise<HealthView> => (await fetch(`http://127.0.0.1:${port}/api/v1/health`)).json() as Promise<HealthView>;
    expect(await health()).toMatchObject({ database: 'up' });
    const again = jubb(['start'], { JUBB_PORT: port });
    expect(again.status).toBe(0);
    expect(again.stdout).toBe(first.stdout);
    expect(await health()).toMatchObject({ database: 'up' });
    // Twice at the same moment, while it runs: neither ends it.
    const both = await Promise.all(
      [0, 1].map(
        () =>
          new Promise<number | null>((resolve) => {
            spawn(join(ROOT, 'jubb'), ['start'], { env: environment({ JUBB_PORT: port }), stdio: 'ignore' }).once('exit', resolve);
          }),
      ),
    );
    expect(both).toEqual([0, 0]);
    expect(jubb(['stop']).stdout).toContain('stopped');
    await expect(health()).rejects.toThrow();
    expect(jubb(['stop']).stdout).toContain('was not running');
  });

  test('the demo is made anew when that is asked for, and a shop of one’s own is left alone', async () => {
    const port = String(await freePort());
    expect(lineOf(jubb(['demo'], { JUBB_PORT: port }))).toContain('--again');
    const elsewhere = jubb(['demo', '--again'], { JUBB_PORT: port, JUBB_DATABASE_URL: 'postgres://127.0.0.1/other' });
    expect([elsewhere.status, lineOf(elsewhere)]).toEqual([1, expect.stringContaining('nothing was touched')]);

    const own = mkdtempSync(join(tmpdir(), 'jubb-own-'));
    chmodSync(own, 0o755);
    try {
      const ownPort = String(await freePort());
      const there = { JUBB_PORT: ownPort, JUBB_HOME: own };
      expect(lineOf(jubb(['start', '--demo', 'large'], there))).toContain('full or small is due');
      expect(jubb(['start', '--empty'], there).status).toBe(0);
      const opened = await fetch(`http://127.0.0.1:${ownPort}/api/v1/first-run`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-jubb-csrf': 'none' },
        body: JSON.stringify(OWN_SHOP),
      });
      expect(opened.status).toBeLessThan(300);
      const again = jubb(['demo', '--again'], there);
      expect([again.status, lineOf(again)]).toEqual([1, expect.stringContaining('is not the demo')]);
      const health = (await (await fetch(`http://127.0.0.1:${ownPort}/api/v1/health`)).json()) as HealthView;
      expect(health.firstRun).toBeUndefined();
      jubb(['stop'], there);
    } finally {
      rmSync(own, { recursive: true, force: true });
    }

    // The demo that the tests before have made, two years of it.
    const made = jubb(['demo', '--again'], { JUBB_PORT: port });
    expect([made.status, made.stderr, made.stdout]).toEqual([
      0,
      'Making the demo …\n',
      expect.stringContaining(`http://127.0.0.1:${port}`),
    ]);
    expect((await fetch(`http://127.0.0.1:${port}/api/v1/health`)).ok).toBe(true);
    jubb(['stop']);
  });

  test('a server that ends by itself is begun again, its log says so, and stop ends all of it', async () => {
    const port = String(await freePort());
    const started = jubb(['start'], { JUBB_PORT: port });
    expect([started.status, started.stderr]).toEqual([0, '']);
    const isUp = (): Promise<boolean> =>
      fetch(`http://127.0.0.1:${port}/api/v1/health`).then(
        ({ ok }) => ok,
        () => false,
      );
    const until = async (wanted: boolean): Promise<void> => {
      for (const end = Date.now() + 60_000; (await isUp()) !== wanted;) {
        if (Date.now() > end) throw new Error(wanted ? 'it does not come back' : 'it does not go');
        await new Promise((resolve) => setTimeout(resolve, 50));
      }
    };
    const { pid } = JSON.parse(readFileSync(join(home, 'server.json'), 'utf8')) as { pid: number };
    const serverOf = (): number => Number(readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim());
    for (let crash = 0; crash < 2; crash += 1) {
      process.kill(serverOf(), 'SIGKILL');
      await until(false);
      await until(true);
    }
    const log = readFileSync(join(home, 'server.log'), 'utf8');
    expect(log.match(/the server ended \(SIGKILL\); it is begun again in 0\.5 s/gu)).toHaveLength(1);
    expect(log.match(/the server ended \(SIGKILL\); it is begun again in 1 s/gu)).toHaveLength(1);
    // Nobody else reads it, and the next start keeps what it says.
    expect(statSync(join(home, 'server.log')).mode & 0o077).toBe(0);
    const server = serverOf();
    expect(jubb(['stop']).stdout).toContain('stopped');
    expect(await isUp()).toBe(false);
    expect(existsSync(`/proc/${server}`)).toBe(false);
    expect(jubb(['start'], { JUBB_PORT: port }).status).toBe(0);
    expect(readFileSync(join(home, 'server.log'), 'utf8').startsWith(log)).toBe(true);
    jubb(['stop']);
  });

  test('no password stands where every user of the machine reads what programs were called with', async () => {
    const port = String(await freePort());
    const password = readFileSync(join(home, 'postgres', 'password'), 'utf8').trim();
    const seen = new Set<string>();
    let isOver = false;
    const starting = spawn(join(ROOT, 'jubb'), ['start'], { env: environment({ JUBB_PORT: port }), stdio: 'ignore' });
    starting.once('exit', () => {
      isOver = true;
    });
    let looks = 0;
    while (!isOver) {
      for (const pid of readdirSync('/proc').filter((name) => /^\d+$/u.test(name))) {
        try {
          const called = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
          if (called.includes(password)) seen.add(called.replaceAll('\0', ' '));
        } catch {
          // It ended meanwhile.
        }
      }
      looks += 1;
      await new Promise((resolve) => setTimeout(resolve, 3));
    }
    expect(looks).toBeGreaterThan(20);
    expect([...seen]).toEqual([]);
    jubb(['stop']);
  });

  test('a taken port, and one that is none', async () => {
    const blocker = createServer();
    await new Promise<void>((resolve) => blocker.listen(0, '127.0.0.1', resolve));
    const { port } = blocker.address() as { port: number };
    try {
      const taken = jubb(['start'], { JUBB_PORT: String(port) });
      expect(taken.status).toBe(1);
      expect(lineOf(taken)).toBe(`jubb: Port ${port} is taken by another program: set JUBB_PORT to a free one`);
    } finally {
      blocker.close();
    }
    expect(lineOf(jubb(['start'], { JUBB_PORT: 'front door' }))).toContain('JUBB_PORT is "front door": a port number');
  });

  test.each([
    ['does not answer', () => 'postgres://jubb:x@127.0.0.1:9/jubb', 'The database does not answer: check JUBB_DATABASE_URL'],
    [
      'refuses the password',
      () => Object.assign(new URL(process.env['JUBB_TEST_DATABASE_URL']!), { password: 'wrong' }).toString(),
      'The database refuses the password',
    ],
    [
      'does not exist',
      () => Object.assign(new URL(process.env['JUBB_TEST_DATABASE_URL']!), { pathname: '/nowhere' }).toString(),
      'The database does not exist',
    ],
  ])('a database that %s', async (_, url, words) => {
    const result = jubb(['start'], { JUBB_PORT: String(await freePort()), JUBB_DATABASE_URL: url() });
    expect(result.status).toBe(1);
    expect(lineOf(result)).toContain(words);
  });
});

describe('a machine that lacks something', () => {
  /** Runs set-up code with parts of the machine replaced beforehand. */
  function setUp(replaced: string, work: string, path = process.env['PATH'] ?? ''): SpawnSyncReturns<string> {
    const script = `
      import fs from 'node:fs';
      import { syncBuiltinESMExports } from 'node:module';
      ${replaced}
      syncBuiltinESMExports();
      const setup = await import(${JSON.stringify(join(ROOT, 'tools/setup.mjs'))});
      try { ${work} } catch (error) { console.error(error.constructor.name + ': ' + error.message); }`;
    return spawnSync(process.execPath, ['--input-type=module', '-e', script], { encoding: 'utf8', env: environment({ PATH: path }) });
  }
  const missing = "setup.ensureDebian([{ name: 'postgresql', proof: () => false }])";

  test('no sudo for an ordinary user', () => {
    const folder = join(home, 'bin');
    mkdirSync(folder);
    writeFileSync(join(folder, 'apt-get'), '#!/bin/sh\n', { mode: 0o755 });
    spawnSync('ln', ['-s', '/bin/sh', join(folder, 'sh')]);
    const result = setUp('process.getuid = () => 1000;', missing, folder);
    expect(lineOf(result)).toBe(
      'Stop: postgresql is needed and sudo is not here: as root run "apt-get install postgresql", then start again',
    );
  });

  test('no apt-get at all', () => {
    const folder = join(home, 'bin-bare');
    mkdirSync(folder);
    spawnSync('ln', ['-s', '/bin/sh', join(folder, 'sh')]);
    expect(lineOf(setUp('', missing, folder))).toContain('there is no apt-get here: install it');
  });

  test('a full disk', () => {
    const result = setUp('fs.statfsSync = () => ({ bavail: 100, bsize: 4096 });', 'setup.checkMachine()');
    expect(lineOf(result)).toMatch(/^Stop: The disk is full: 0 MB free in .*make room or set JUBB_HOME/u);
  });

  test('a Node.js that is too old', () => {
    const result = setUp("Object.defineProperty(process, 'versions', { value: { node: '18.20.0' } });", 'setup.checkMachine()');
    expect(lineOf(result)).toBe('Stop: Node.js 18.20.0 is too old: 20 or newer is needed');
  });
});

describe('workings on the command line', () => {
  const working = (...args: string[]): { status: number | null; answer: unknown } => {
    const { status, stdout } = spawnSync('npm', ['run', '-s', 'working', '--', ...args], {
      cwd: ROOT,
      encoding: 'utf8',
      env: environment({}),
    });
    return { status, answer: JSON.parse(stdout) as unknown };
  };

  test('list, describe and run give what the core gives', () => {
    expect(working('list').answer).toEqual(workings.list().map(({ id, title, area }) => ({ id, title, area })));
    expect(working('describe', 'bearing.nut').answer).toEqual(JSON.parse(JSON.stringify(workings.describe('bearing.nut'))));
    const input = { torque: '80 lbf·ft', wrench: '450 mm', adapter: '55 mm', angle: 30 };
    const direct = workings.run('torque.adapter', input);
    expect(working('run', 'torque.adapter', JSON.stringify(input))).toEqual({
      status: 0,
      answer: JSON.parse(JSON.stringify(direct?.ok && direct.run)),
    });
  });

  test.each([
    [['run', 'torque.adapter', '{"torque":"30 kPa","wrench":450}'], 'torque', /is a pressure; a torque is asked/u],
    [['run', 'torque.adapter', '{"torque":'], 'input', /is not JSON/u],
    [['run', 'torque.guess', '{}'], 'id', /is not a working/u],
    [['describe', 'torque.guess'], 'id', /is not a working/u],
    [['walk'], 'command', /is not a command/u],
  ])('%j is refused with exit code 2', (args, field, message) => {
    const { status, answer } = working(...args);
    expect(status).toBe(2);
    expect(answer).toMatchObject({ error: { field, message: expect.stringMatching(message) } });
  });
});
