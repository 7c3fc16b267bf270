// What is done by itself in the night: the next backup, where one is set up, then a walk through what is kept.
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { backupConfig } from './postgres.mjs';

const BACKUP_HOUR = 2;
const WALK_HOUR = 3;

/** What is due now, once a day each. `done` is the day of the last one by its name, as `Date` writes it. */
export function dueAtNight(home, now, done) {
  const due = [];
  if (now.getHours() === BACKUP_HOUR && existsSync(backupConfig(join(home, 'postgres')))) due.push('backup');
  if (now.getHours() === WALK_HOUR) due.push('walk');
  return due.filter((what) => done[what] !== now.toDateString());
}

/** The command that anybody can give, begun beside the server. */
export function giveAtNight(what, env) {
  const own = { ...env };
  // The server is told the address of Jubb's own database; for whoever backs up that names one of somebody else.
  if (what === 'backup') delete own.JUBB_DATABASE_URL;
  const jubb = fileURLToPath(new URL('jubb.mjs', import.meta.url));
  return spawn(process.execPath, [jubb, what, '--quiet'], { stdio: ['ignore', 'pipe', 'pipe'], env: own });
}
