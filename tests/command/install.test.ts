import type { HealthView } from '@jubb/wire';
import { chmodSync, mkdtempSync, realpathSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { OWN_SHOP } from '../kit/client.ts';
import { asVersion, checkout } from '../kit/checkout.ts';
import { bareDebian, nodeIn } from '../kit/debian.ts';
import { BOOTS_MS, Machine, canBoot } from '../kit/machine.ts';
import { ROOT } from '../kit/server.ts';
import { until } from '../kit/stream.ts';

const BASE = 'http://127.0.0.1:4170';

/** A machine within the machine is made by root alone, and not everywhere. */
const where = canBoot(ROOT) ? describe : describe.skip;

where('a service of a bare Debian', () => {
  let folder: string;
  let machine: Machine;

  beforeAll(async () => {
    folder = realpathSync(mkdtempSync(join(tmpdir(), 'jubb-install-')));
    chmodSync(folder, 0o755);
    const debian = join(folder, 'debian');
    bareDebian(debian);
    // Booted it has no way out to Debian: what Jubb would fetch for itself, it fetches before.
    const setup = JSON.stringify(join(ROOT, 'tools/setup.mjs'));
    nodeIn(debian, `const s = await import(${setup}); s.ensureDebian([s.POSTGRESQL, s.PGBACKREST, s.CADDY, s.AVAHI]);`);
    checkout(join(folder, 'first'));
    machine = new Machine(folder, debian);
    await machine.boot();
  });
  afterAll(async () => {
    await machine.drawPlug();
    rmSync(folder, { recursive: true, force: true });
  });

  const jubb = (...args: readonly string[]): ReturnType<Machine['run']> => machine.run('/usr/local/bin/jubb', args);
  const health = (): HealthView | undefined => {
    const said = machine.node(`console.log(await (await fetch('${BASE}/api/v1/health')).text())`);
    return said === '' ? undefined : (JSON.parse(said) as HealthView);
  };
  const answers = (): Promise<void> => until(() => health()?.database === 'up', BOOTS_MS);
  const jubbProcess = (words: string): number => Number(machine.run('pgrep', ['-o', '-u', 'jubb', '-f', words]).stdout.trim());
  const post = (path: string, body: object): string =>
    machine.node(`
      const headers = { 'content-type': 'application/json', 'x-jubb-csrf': 'none' };
      const answer = await fetch('${BASE}/api/v1${path}', { method: 'POST', headers, body: ${JSON.stringify(JSON.stringify(body))} });
      console.log(answer.status, await answer.text());
    `);
  const logIn = (): string => post('/session', { login: OWN_SHOP.login, password: OWN_SHOP.password });
  const logsIn = (): boolean => Number.parseInt(logIn(), 10) < 300;

  test('a shop that was started by hand moves in, with its backups', async () => {
    const byHand = (...args: readonly string[]): ReturnType<Machine['run']> => machine.run('/tmp/shop/first/jubb', args);
    expect(byHand('start', '--empty').status).toBe(0);
    expect(Number.parseInt(post('/first-run', OWN_SHOP), 10)).toBeLessThan(300);
    expect(byHand('backup', '/srv/backups').stdout).toMatch(/Backed up: .* to \/srv\/backups\n$/u);
  });

  test('is installed by root alone, once, under a user of its own that cannot change the program', () => {
    const nobody = machine.run('runuser', ['-u', 'nobody', '--', '/tmp/shop/first/jubb', 'install']);
    expect([nobody.status, nobody.stderr]).toEqual([1, expect.stringContaining('made by root: sudo ./jubb install')]);
    machine.run('mkdir', ['-p', '/var/lib/jubb/something-else']);
    expect(machine.run('/tmp/shop/first/jubb', ['install']).stderr).toContain('which is not empty: nothing was touched');
    machine.run('rm', ['-r', '/var/lib/jubb']);
    const installed = machine.run('/tmp/shop/first/jubb', ['install']);
    expect([installed.status, installed.stdout]).toEqual([
      0,
      expect.stringContaining('it answers at http://127.0.0.1:4170, and begins whenever'),
    ]);
    expect(machine.run('/tmp/shop/first/jubb', ['install']).stderr).toContain('is installed here already');
    expect(machine.run('systemctl', ['is-enabled', 'jubb']).stdout).toBe('enabled\n');
    expect(jubbProcess('apps/server/dist/main.js')).toBeGreaterThan(0);
    expect(jubbProcess('bin/postgres')).toBeGreaterThan(0);
    const mayWrite = (place: string): boolean => machine.run('runuser', ['-u', 'jubb', '--', 'test', '-w', place]).status === 0;
    expect(['/var/lib/jubb', '/opt/jubb', '/opt/jubb/current/tools/jubb.mjs', '/etc/jubb.env'].map(mayWrite)).toEqual([
      true,
      false,
      false,
      false,
    ]);
    // Nobody else of the machine reads the shop.
    expect(machine.run('runuser', ['-u', 'nobody', '--', 'ls', '/var/lib/jubb']).status).not.toBe(0);
    expect(health()).toMatchObject({ database: 'up' });
    expect(logsIn()).toBe(true);
    // What a page tells a foreman to do is what is typed at this machine.
    expect(logIn()).toContain('"command":"sudo jubb"');
  });

  test('status and backup are asked of the shop, whoever asks', () => {
    const backedUp = jubb('backup');
    expect([backedUp.status, backedUp.stdout]).toEqual([0, expect.stringMatching(/Backed up: .* to \/srv\/backups\n$/u)]);
    // A new place is given to who fills it; the one that is set up stays the one.
    expect(jubb('backup', '/srv/other').stderr).toContain('Backups go to /srv/backups');
    expect(machine.run('stat', ['-c', '%U', '/srv/other']).stdout).toBe('jubb\n');
    const { stdout } = jubb('status');
    for (const line of ['ok  shop         /var/lib/jubb', 'ok  server       http://127.0.0.1:4170', 'ok  backup       0 h ago'])
      expect(stdout).toContain(line);
  });

  test('is there for the tablets of the shop once that is asked for, and no more when it is taken back', async () => {
    const told = (port: number): string =>
      machine.node(`
        process.env.NODE_TLS_REJECT_UNAUTHORIZED = '0';
        const answer = await fetch('${port === 4443 ? 'https' : 'http'}://127.0.0.1:${port}/').catch(() => undefined);
        console.log(answer?.status ?? 'nobody there');
      `);
    expect([told(4443), told(4480)]).toEqual(['nobody there\n', 'nobody there\n']);
    const nobody = machine.run('runuser', ['-u', 'nobody', '--', '/opt/jubb/current/jubb', 'lan']);
    expect([nobody.status, nobody.stderr]).toEqual([1, expect.stringContaining('changed by root: sudo jubb lan')]);
    expect(jubb('lan', '--certificate', '/nowhere.pem', '--key', '/nowhere.key').stderr).toContain('there is no such file');
    const on = machine.run('/usr/local/bin/jubb', ['lan'], { JUBB_LAN_BIND: '127.0.0.1' });
    expect([on.status, on.stdout]).toEqual([0, expect.stringContaining('Jubb is there for the tablets of the shop')]);
    await until(() => told(4443) === '200\n', BOOTS_MS);
    expect(told(4480)).toBe('200\n');
    expect(jubb('status').stdout).toContain('network      https://127.0.0.1:4443');
    expect(jubb('lan', '--off').stdout).toContain('reach Jubb no more');
    await answers();
    expect([told(4443), told(4480)]).toEqual(['nobody there\n', 'nobody there\n']);
  });

  test.each([
    ['the server', 'max-semi-space-size'],
    ['what keeps it up', 'tools/keep-up.mjs'],
    ['the service', 'start --empty --stay'],
    ['the database', 'bin/postgres'],
  ])('%s, killed, comes back by itself', async (_, words) => {
    const killed = jubbProcess(words);
    expect(killed).toBeGreaterThan(0);
    machine.run('kill', ['-9', String(killed)]);
    await until(() => ![0, killed].includes(jubbProcess(words)), BOOTS_MS);
    await answers();
    expect(logsIn()).toBe(true);
  });

  test('after a power cut it begins as the machine does', async () => {
    await machine.drawPlug();
    await machine.boot();
    await answers();
    expect(logsIn()).toBe(true);
  });

  test('an update that cannot serve leaves it as it was; one that can has it, and the program before stays beside it', async () => {
    const { version } = health()!;
    asVersion(
      checkout(join(folder, 'failing')),
      '9.1.0',
      "UPDATE person SET login = login || '-gone'",
      "throw new Error('this one cannot serve');",
    );
    const failed = jubb('update', '/tmp/shop/failing');
    expect([failed.status, failed.stderr]).toEqual([1, expect.stringContaining('The new version does not come up; the shop is as it was')]);
    expect(failed.stderr).toMatch(/: this one cannot serve$/mu);
    await answers();
    expect([health()?.version, logsIn()]).toEqual([version, true]);

    // As one that was installed when there was no such line yet.
    machine.run('sed', ['-i', '/JUBB_COMMAND/d', '/etc/jubb.env']);
    machine.run('sed', ['-i', 's/ | lan)/)/', '/usr/local/bin/jubb']);
    asVersion(checkout(join(folder, 'newer')), '9.2.0', 'CREATE TABLE later (id int)');
    const updated = jubb('update', '/tmp/shop/newer');
    expect([updated.status, updated.stdout]).toEqual([0, 'Updated: version 9.2.0 answers. From now on: jubb status\n']);
    expect([health()?.version, logsIn()]).toEqual(['9.2.0', true]);
    expect(logIn()).toContain('"command":"sudo jubb"');
    expect(machine.run('grep', ['-c', 'update | lan)', '/usr/local/bin/jubb']).stdout).toBe('1\n');
    const programs = machine.run('ls', ['/opt/jubb']).stdout.trim().split('\n');
    expect(programs).toHaveLength(3);
    expect(programs).toContain('current');
    // Another backup of the shop, which says what it is, goes on where the others are.
    expect(jubb('backup').status).toBe(0);
  });
});
