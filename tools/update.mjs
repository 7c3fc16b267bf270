// ./jubb update FOLDER: to a newer checkout, and back again where that one does not answer.
import { existsSync, readFileSync, readdirSync, realpathSync, symlinkSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { backup, lastBackup } from './backup.mjs';
import { before } from './before.mjs';
import { isService, serviceHouse } from './install.mjs';
import { lanArgs } from './lan.mjs';
import { Stop, remark, say } from './say.mjs';
import { answers, portWanted, readState, start, stop } from './serve.mjs';
import { ROOT, checkMachine, home, run } from './setup.mjs';

const MIGRATIONS = 'apps/server/src/database/migrations';

/**
 * What an update does with a shop that somebody starts by hand; a service has the same acts. `before` keeps the database
 * as it is, brings that back or lets it go; `to` begins the checkout in a folder, `away` ends it, `again` begins the one
 * of before, `done` says how it is begun from now on.
 */
function houseByHand() {
  const running = readState();
  const { lan, port } = running ?? {};
  // Where it served it goes on, whatever the environment of this command says.
  if (running) process.env.JUBB_PORT = String(port);
  if (lan) Object.assign(process.env, { JUBB_LAN_PORT: String(lan.secure), JUBB_LAN_TRUST_PORT: String(lan.plain) });
  const args = ['--empty', ...lanArgs(lan)];
  return {
    isRunning: running !== undefined,
    port: portWanted(),
    backup: () => (lastBackup() ? backup(['--quiet']) : remark('No backup is set up here: ./jubb backup FOLDER')),
    stop: () => stop({ quiet: true }),
    before,
    to: (folder) => jubb(folder, ['start', ...args], 'The new version'),
    away: (folder) => jubb(folder, ['stop'], 'Stopping the new version'),
    again: () => start(args, { quiet: true }),
    done: (folder) => link(folder),
  };
}

/** A command of another checkout, on this shop. */
function jubb(folder, args, words) {
  // What it is started by ends; what it starts stays, and keeps no pipe of it open.
  return run(process.execPath, [join(folder, 'tools/jubb.mjs'), ...args], {
    words,
    cwd: folder,
    env: { ...process.env, JUBB_HOME: home() },
  });
}

/** Where the next start by its own command finds the shop. */
function link(folder) {
  const own = join(folder, '.jubb');
  if (process.env.JUBB_HOME !== undefined) return `JUBB_HOME=${home()} ${join(folder, 'jubb')} start`;
  if (!existsSync(own)) symlinkSync(home(), own);
  return `${join(folder, 'jubb')} start`;
}

export async function update(args) {
  if (process.env.JUBB_DATABASE_URL)
    throw new Stop('JUBB_DATABASE_URL names a database that is not Jubb’s own: back it up there, stop, and start the new folder');
  checkMachine();
  const house = isService() ? serviceHouse() : houseByHand();
  if (args.includes('--back')) return goBack(house);
  const [asked] = args.filter((one) => !one.startsWith('--'));
  if (asked === undefined) throw new Stop('To which one? ./jubb update FOLDER, a newer checkout of Jubb');
  const folder = resolve(asked);
  checkFolder(folder);
  if (!existsSync(join(home(), 'postgres', 'data', 'PG_VERSION')))
    throw new Stop(`There is no shop in ${home()} yet: ./jubb start in the new folder makes one`);
  remark('Building the new version …');
  jubb(folder, ['build'], 'Building the new version');
  await house.backup();
  await house.stop();
  // From here on whatever fails ends with the shop as it was.
  try {
    await house.before('keep');
  } catch (error) {
    if (house.isRunning) await house.again();
    throw error;
  }
  let version;
  try {
    await house.to(folder);
    version = await answers(house.port, house.isLost);
  } catch (error) {
    await house.away(folder);
    await house.before('back');
    if (house.isRunning) await house.again();
    throw new Stop(
      `The new version does not come up; the shop is as it was${house.isRunning ? ', with the one of before' : ''}.\n${error.message}`,
    );
  }
  await house.before('forget');
  const how = await house.done(folder);
  if (!house.isRunning) await house.away(folder);
  say(`Updated: version ${version} answers. From now on: ${how}`);
}

/** After an update that was cut off, by a power cut say: the database of before, with this version. */
async function goBack(house) {
  await house.before('find');
  await house.stop();
  await house.before('back');
  await house.again();
  say('The shop is as it was before the update that was cut off');
}

function checkFolder(folder) {
  const manifest = join(folder, 'package.json');
  const isOurs = existsSync(manifest) && JSON.parse(readFileSync(manifest, 'utf8')).name === 'jubb';
  if (!isOurs || !existsSync(join(folder, 'tools/update.mjs'))) throw new Stop(`${folder} is no checkout of Jubb that can be updated to`);
  if (realpathSync(folder) === realpathSync(ROOT)) throw new Stop(`${folder} is the one that runs: a folder with the newer one is due`);
  if (existsSync(join(folder, '.jubb', 'postgres')) && realpathSync(join(folder, '.jubb')) !== realpathSync(home()))
    throw new Stop(`There is a shop of its own in ${join(folder, '.jubb')}: nothing was touched`);
  const moments = (at) => new Set(readdirSync(join(at, MIGRATIONS)).map((name) => name.split('-')[0]));
  const theirs = moments(folder);
  if ([...moments(ROOT)].some((moment) => !theirs.has(moment)))
    throw new Stop(`${folder} is older than the one that runs: it does not know all that this shop keeps`);
}
