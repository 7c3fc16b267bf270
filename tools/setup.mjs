// What a fresh Debian machine needs before anything else: node packages, Debian packages, the build.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, realpathSync, statSync, statfsSync, writeFileSync } from 'node:fs';
import { join, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Stop, remark } from './say.mjs';

export const ROOT = fileURLToPath(new URL('..', import.meta.url));
const LEAST_FREE_MB = 400;
/** Where `install` puts what it runs, ready: nothing is fetched or built there. */
export const PROGRAM = '/opt/jubb';
export const isPlaced = ROOT.startsWith(`${PROGRAM}/`);

export function home() {
  const place = resolve(ROOT, process.env.JUBB_HOME ?? '.jubb');
  // An update leaves a link to it in the newer checkout.
  return existsSync(place) ? realpathSync(place) : place;
}

/** A port out of the environment. */
export function portFrom(name, otherwise) {
  const text = process.env[name] ?? otherwise;
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65535) throw new Stop(`${name} is "${text}": a port number from 1 to 65535 is due`);
  return port;
}

export function isRoot() {
  return process.getuid?.() === 0;
}

export function checkMachine() {
  const major = Number(process.versions.node.split('.')[0]);
  if (major < 20) throw new Stop(`Node.js ${process.versions.node} is too old: 20 or newer is needed`);
  let place = home();
  while (!existsSync(place)) place = resolve(place, '..');
  const { bavail, bsize } = statfsSync(place);
  const freeMb = Math.floor((bavail * bsize) / 1e6);
  if (freeMb < LEAST_FREE_MB)
    throw new Stop(
      `The disk is full: ${freeMb} MB free in ${place}, ${LEAST_FREE_MB} MB are needed; make room or set JUBB_HOME to another disk`,
    );
  try {
    mkdirSync(home(), { recursive: true });
  } catch (error) {
    throw new Stop(`${home()} cannot be made (${error.code}): set JUBB_HOME to a folder of yours`);
  }
}

/** Runs a command to its end; its output is shown only when it fails. */
export function run(command, args, { words, ...options } = {}) {
  const result = spawnSync(command, args, { cwd: ROOT, encoding: 'utf8', maxBuffer: 1 << 28, ...options });
  if (result.status === 0) return result.stdout;
  const output = `${result.stdout ?? ''}${result.stderr ?? ''}`.trim();
  if (/ENOSPC|No space left/u.test(output)) throw new Stop('The disk is full: make room and start again');
  throw new Stop(
    `${words ?? [command, ...args].join(' ')} failed${output ? `:\n${output.split('\n').slice(-30).join('\n')}` : ` (${result.error?.message ?? result.status})`}`,
  );
}

export function ensureNodeModules() {
  if (isPlaced) return;
  const stamp = join(ROOT, 'node_modules', '.jubb-installed');
  const wanted = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .update(process.version)
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  remark('Installing node packages …');
  // Nothing is told to anybody about it.
  const env = { ...process.env, SCARF_ANALYTICS: 'false', DO_NOT_TRACK: '1' };
  run('npm', ['ci', '--no-audit', '--no-fund'], { words: 'Installing node packages', env });
  writeFileSync(stamp, wanted);
}

/** Installs Debian packages that are missing; `proof` is the file each brings. */
export function ensureDebian(packages) {
  const missing = packages.filter(({ proof }) => !proof());
  if (missing.length === 0) return;
  const names = missing.map(({ name }) => name);
  const apt = spawnSync('sh', ['-c', 'command -v apt-get'], { encoding: 'utf8' });
  if (apt.status !== 0) throw new Stop(`${names.join(' and ')} is needed and there is no apt-get here: install it, then start again`);
  const sudo = isRoot() ? [] : ['sudo'];
  if (!isRoot() && spawnSync('sh', ['-c', 'command -v sudo']).status !== 0) {
    throw new Stop(
      `${names.join(' and ')} is needed and sudo is not here: as root run "apt-get install ${names.join(' ')}", then start again`,
    );
  }
  remark(`Installing from Debian: ${names.join(', ')} …`);
  const [command, ...before] = [...sudo, 'env', 'DEBIAN_FRONTEND=noninteractive'];
  const install = (args, words) => run(command, [...before, ...args], { words, stdio: ['inherit', 'pipe', 'pipe'] });
  install(['apt-get', 'update', '-qq'], 'apt-get update');
  // Debian's package would start a database of its own; Jubb runs one in its own folder.
  if (names.includes('postgresql')) {
    install(
      [
        'sh',
        '-c',
        'mkdir -p /etc/postgresql-common/createcluster.d && echo "create_main_cluster = false" > /etc/postgresql-common/createcluster.d/jubb.conf',
      ],
      'Preparing PostgreSQL',
    );
  }
  install(['apt-get', 'install', '-y', '-qq', '--no-install-recommends', ...names], `Installing ${names.join(', ')}`);
  // Debian's package begins one of its own at once, with a page of its own.
  if (names.includes('caddy') && existsSync('/run/systemd/system'))
    install(['systemctl', 'disable', '--now', 'caddy.service'], 'Leaving Caddy to Jubb');
}

export const POSTGRESQL = { name: 'postgresql', proof: () => postgresBin() !== undefined };
export const PGBACKREST = { name: 'pgbackrest', proof: () => existsSync('/usr/bin/pgbackrest') };
export const CADDY = { name: 'caddy', proof: () => existsSync('/usr/bin/caddy') };
export const AVAHI = { name: 'avahi-daemon', proof: () => existsSync('/usr/sbin/avahi-daemon') };
export const HAPROXY = { name: 'haproxy', proof: () => existsSync('/usr/sbin/haproxy') };
/** What has a browser of the tests trust an authority, and what a network is made with. */
export const NSS_TOOLS = { name: 'libnss3-tools', proof: () => existsSync('/usr/bin/certutil') };
export const IPROUTE = { name: 'iproute2', proof: () => ['/usr/sbin/ip', '/usr/bin/ip', '/sbin/ip'].some((path) => existsSync(path)) };
/** What a bare Debian is made with, to install Jubb on. */
export const DEBOOTSTRAP = { name: 'debootstrap', proof: () => existsSync('/usr/sbin/debootstrap') };
export const CHROMIUM = { name: 'chromium', proof: () => existsSync('/usr/bin/chromium') };

/** Folder of initdb and pg_ctl, the newest version there is. */
export function postgresBin() {
  const base = '/usr/lib/postgresql';
  if (!existsSync(base)) return undefined;
  const versions = readdirSync(base).filter((version) => existsSync(join(base, version, 'bin', 'initdb')));
  const newest = versions.toSorted((a, b) => Number(b) - Number(a))[0];
  return newest && join(base, newest, 'bin');
}

const SOURCES = [
  'packages/core/src',
  'packages/sheet/src',
  'packages/book/src',
  'packages/play/src',
  'packages/wire/src',
  'apps/server/src',
  'apps/server/demo',
  'apps/web/src',
  'apps/web/index.html',
  'apps/web/vite.config.ts',
  'tools/answers.mjs',
  'tools/library.mjs',
  'package-lock.json',
  'tsconfig.base.json',
];

/** Builds what changed since the last build; returns a mark of what was built. */
export function ensureBuild() {
  const stamp = join(ROOT, 'node_modules', '.jubb-built');
  if (isPlaced) return readFileSync(stamp, 'utf8');
  const wanted = sourcesMark();
  const outputs = [
    'packages/core/dist/index.js',
    'packages/sheet/dist/index.js',
    'packages/book/dist/index.js',
    'packages/play/dist/index.js',
    'packages/wire/dist/index.js',
    'packages/wire/dist/answers.json',
    'apps/server/dist/main.js',
    'apps/server/dist/demo/library.json',
    'apps/server/dist/demo/played.ndjson.gz',
    'apps/web/dist/index.html',
  ];
  const isBuilt = outputs.every((output) => existsSync(join(ROOT, output)));
  if (isBuilt && existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return wanted;
  remark('Building …');
  run('npm', ['run', '--silent', 'build'], { words: 'Building' });
  writeFileSync(stamp, wanted);
  return wanted;
}

/** All that a start needs but the database. */
export function prepare() {
  checkMachine();
  ensureNodeModules();
  ensureBuild();
}

function sourcesMark() {
  const hash = createHash('sha256');
  const visit = (path) => {
    const stats = statSync(path);
    if (stats.isDirectory()) for (const name of readdirSync(path).toSorted()) visit(join(path, name));
    else hash.update(relative(ROOT, path)).update(readFileSync(path));
  };
  for (const source of SOURCES) if (existsSync(join(ROOT, source))) visit(join(ROOT, source));
  return hash.digest('hex');
}
