// ./jubb install: a service of this machine, under a user of its own, from when it boots.
import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, readFileSync, readdirSync, readlinkSync, renameSync, rmSync, statSync, symlinkSync } from 'node:fs';
import { join } from 'node:path';
import { movedBackup } from './backup.mjs';
import { backupConfig } from './postgres.mjs';
import { lanAsked } from './lan.mjs';
import { Stop, remark, say } from './say.mjs';
import { answers, portWanted, stop } from './serve.mjs';
import { COMMAND, CURRENT, SHOP, UNIT, USER, isBooted, systemctl, writeCommand, writeSettings, writeUnit } from './service-files.mjs';
import {
  AVAHI,
  CADDY,
  PGBACKREST,
  POSTGRESQL,
  PROGRAM,
  ROOT,
  checkMachine,
  ensureBuild,
  ensureDebian,
  ensureNodeModules,
  home,
  isPlaced,
  isRoot,
  run,
} from './setup.mjs';

/** The one that runs, and the one before it. */
const RELEASES_KEPT = 2;

/** Whether what runs here is what was installed. */
export const isService = () => isPlaced && existsSync(UNIT);

export async function install(args) {
  if (!isRoot()) throw new Stop('A service of the machine is made by root: sudo ./jubb install');
  if (!existsSync('/lib/systemd/systemd'))
    throw new Stop('There is no systemd here, which begins services as the machine boots: ./jubb start serves by hand');
  if (process.env.JUBB_DATABASE_URL)
    throw new Stop('JUBB_DATABASE_URL names a database that is not Jubb’s own: install makes one on this machine');
  if (existsSync(UNIT)) throw new Stop(`Jubb is installed here already (${UNIT}): ${COMMAND} update FOLDER goes to a newer checkout`);
  if (/^\/(?:home|root)\//u.test(process.execPath))
    throw new Stop(`Node.js lies in ${process.execPath}, where a service does not read: install Debian's for the whole machine`);
  checkMachine();
  const port = portWanted();
  const lan = lanAsked(args);
  const mine = home();
  const hasShop = existsSync(join(mine, 'postgres', 'data', 'PG_VERSION'));
  if (hasShop && existsSync(SHOP) && readdirSync(SHOP).length > 0)
    throw new Stop(`The shop of ${mine} is to move to ${SHOP}, which is not empty: nothing was touched`);
  ensureNodeModules();
  ensureBuild();
  // What a service without rights could not fetch itself.
  ensureDebian([POSTGRESQL, PGBACKREST, ...(lan ? [CADDY, AVAHI] : [])]);
  if (spawnSync('id', [USER]).status !== 0) {
    const account = ['--system', '--user-group', '--home-dir', SHOP, '--shell', '/usr/sbin/nologin', USER];
    run('useradd', account, { words: `Making the user ${USER}` });
  }
  if (lan?.key) checkReadable(lan.key);
  remark(`Putting the program into ${PROGRAM} …`);
  turnTo(placed(ROOT));
  if (hasShop) {
    await stop({ quiet: true });
    rmSync(SHOP, { recursive: true, force: true });
    run('mv', [mine, SHOP], { words: `Moving the shop to ${SHOP}` });
  }
  mkdirSync(SHOP, { recursive: true });
  run('chown', ['-R', `${USER}:${USER}`, SHOP]);
  run('chmod', ['750', SHOP]);
  if (hasShop) movedBackup(join(SHOP, 'postgres'), USER);
  writeSettings({ JUBB_PORT: String(port) });
  writeUnit(lan);
  writeCommand();
  systemctl('enable', 'jubb.service');
  if (isBooted()) {
    systemctl('start', 'jubb.service');
    await answers(port, isLost);
  }
  say(
    `Jubb is installed: it ${isBooted() ? `answers at http://127.0.0.1:${port}, and ` : ''}begins whenever this machine does. The shop is in ${SHOP}`,
  );
  say('sudo jubb status says whether all is well; sudo jubb backup FOLDER sees to it that nothing is lost');
}

/** Whether a service is there for the tablets of the shop, too: from now on, with another certificate, or no more. */
export async function lan(args) {
  if (!isService()) throw new Stop('This is for a service of the machine (sudo ./jubb install): ./jubb start --lan serves tablets by hand');
  if (!isRoot()) throw new Stop('A service of the machine is changed by root: sudo jubb lan');
  const isOff = args.includes('--off');
  const asked = isOff ? undefined : lanAsked(['--lan', ...args]);
  if (asked) {
    ensureDebian([CADDY, AVAHI]);
    if (asked.key) checkReadable(asked.key);
  }
  const port = portWanted();
  // Ports that the environment names from now on.
  writeSettings({});
  writeUnit(asked);
  if (isBooted()) {
    systemctl('restart', 'jubb.service');
    await answers(port, isLost);
  }
  say(
    isOff
      ? 'Tablets of the network reach Jubb no more: it answers on this machine alone'
      : 'Jubb is there for the tablets of the shop; sudo jubb status says by which address, the page On the network lets one in',
  );
}

/** A copy of a checkout where nobody but root writes; its place. */
function placed(folder) {
  const { version } = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8'));
  const mark = readFileSync(join(folder, 'node_modules', '.jubb-built'), 'utf8').slice(0, 8);
  const place = join(PROGRAM, `${version}-${mark}`);
  if (existsSync(place)) return place;
  const begun = `${place}.begun`;
  rmSync(begun, { recursive: true, force: true });
  mkdirSync(PROGRAM, { recursive: true });
  const left = new Set([join(folder, '.git'), join(folder, '.jubb')]);
  cpSync(folder, begun, { recursive: true, verbatimSymlinks: true, filter: (from) => !left.has(from) });
  run('chown', ['-R', 'root:root', begun]);
  run('chmod', ['-R', 'u+rwX,go+rX,go-w', begun]);
  // Whole or not at all.
  renameSync(begun, place);
  return place;
}

/** Which one `current` is, from now on. */
function turnTo(place) {
  const next = `${CURRENT}.next`;
  rmSync(next, { force: true });
  symlinkSync(place, next);
  renameSync(next, CURRENT);
}

/** Of those that were, the newest stay. */
function thinned() {
  const now = readlinkSync(CURRENT);
  const there = readdirSync(PROGRAM, { withFileTypes: true })
    .filter((entry) => entry.isDirectory())
    .map(({ name }) => join(PROGRAM, name));
  const others = there.filter((place) => place !== now).toSorted((one, other) => statSync(other).ctimeMs - statSync(one).ctimeMs);
  for (const old of others.slice(RELEASES_KEPT - 1)) rmSync(old, { recursive: true, force: true });
}

function checkReadable(file) {
  if (spawnSync('runuser', ['-u', USER, '--', 'test', '-r', file]).status !== 0)
    throw new Stop(`The user ${USER} cannot read ${file}: chown ${USER} it, or put it where that user reads`);
}

/** The last word of a service that could not stay. */
function isLost() {
  if (run('systemctl', ['show', 'jubb.service', '-p', 'NRestarts', '--value']).trim() === '0') return undefined;
  const said = run('journalctl', ['-u', 'jubb.service', '-o', 'cat', '-n', '50', '--no-pager']);
  return said.split('\n').findLast((line) => line.startsWith('jubb: ')) ?? 'The service ends as soon as it is begun';
}

/** Each version knows by itself how it is begun and asked. */
function begin(place) {
  turnTo(place);
  const files = join(place, 'tools/service-files.mjs');
  if (existsSync(files)) run(process.execPath, [files], { words: 'How it is begun' });
  systemctl('start', 'jubb.service');
}

/** What an update does with an installed shop; see the one that is started by hand. */
export function serviceHouse() {
  const asUser = (file, ...args) =>
    run('runuser', ['-u', USER, '--', process.execPath, join(ROOT, 'tools', file), ...args], { words: args.join(' '), cwd: '/' });
  const was = readlinkSync(CURRENT);
  return {
    isRunning: true,
    isLost,
    port: portWanted(),
    stop: () => systemctl('stop', 'jubb.service'),
    before: (what) => asUser('before.mjs', what),
    backup: () =>
      existsSync(backupConfig(join(SHOP, 'postgres')))
        ? asUser('jubb.mjs', 'backup', '--quiet')
        : remark('No backup is set up here: jubb backup FOLDER'),
    to(folder) {
      begin(placed(folder));
    },
    away: () => systemctl('stop', 'jubb.service'),
    again() {
      begin(was);
    },
    done() {
      thinned();
      return 'jubb status';
    },
  };
}
