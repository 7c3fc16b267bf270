// What is done by itself in the night: the next backup, where one is set up.
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { backupConfig } from './postgres.mjs';

const NIGHT_HOUR = 2;

/** Whether a backup is due now: in that hour, once a day, where one is set up. `last` is the day of the one before, as `Date` writes it. */
export function isBackupDue(home, now, last) {
  return now.getHours() === NIGHT_HOUR && now.toDateString() !== last && existsSync(backupConfig(join(home, 'postgres')));
}

/** The command that anybody can give, begun beside the server. */
export function backUp(env) {
  // The server is told the address of Jubb's own database; for whoever gives the command that names one of somebody else.
  const rest = { ...env };
  delete rest.JUBB_DATABASE_URL;
  const jubb = fileURLToPath(new URL('jubb.mjs', import.meta.url));
  return spawn(process.execPath, [jubb, 'backup', '--quiet'], { stdio: ['ignore', 'pipe', 'pipe'], env: rest });
}
