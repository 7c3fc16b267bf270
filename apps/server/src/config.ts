import { existsSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/** The folder apps/server, from src or dist alike. */
const SERVER_ROOT = new URL('..', import.meta.url);

/** What `./jubb start --lan` set up before the server. */
export interface Lan {
  /** Addresses by https, the one by name first. */
  readonly secure: readonly string[];
  /** Where a tablet comes to trust it, by plain http; none where the certificate is one that tablets trust already. */
  readonly trust?: string;
  /** File of the shop's own authority (PEM). */
  readonly authority?: string;
}

export interface Config {
  readonly port: number;
  readonly host: string;
  readonly databaseUrl: string;
  readonly webRoot: string | undefined;
  /** Photos and clips of the demo. */
  readonly demoPictures: string;
  readonly version: string;
  /** What whoever looks after the machine types there: a page says what to do by it. */
  readonly command: string;
  /** Addresses of the proxies before it, whose word for the client's address is taken; nobody else's is. */
  readonly proxies: readonly string[];
  /** How the tablets of the shop's network come here; nothing where only this machine does. */
  readonly lan: Lan | undefined;
  /** Whose disk is watched, and the share of it that must be free before everybody is told. */
  readonly dataFolder: string;
  readonly diskWarnShare: number;
  /** A sheet that takes longer to read is given up, s. */
  readonly sheetSeconds: number;
  /** What the photos and clips of the shop may take, MB. */
  readonly filesMb: number;
  /** Requests of one session in ten seconds. */
  readonly requestsPer10s: number;
}

export function readConfig(env: NodeJS.ProcessEnv): Config {
  const databaseUrl = env['JUBB_DATABASE_URL'];
  if (!databaseUrl) throw new Error('JUBB_DATABASE_URL is missing: the address of the PostgreSQL database');
  const web = fileURLToPath(new URL('../web/dist/', SERVER_ROOT));
  const manifest = JSON.parse(readFileSync(new URL('package.json', SERVER_ROOT), 'utf8')) as { version: string };
  return {
    port: wholeNumber(env['JUBB_PORT'] ?? '4170', 'JUBB_PORT', 65535),
    host: env['JUBB_HOST'] ?? '127.0.0.1',
    databaseUrl,
    webRoot: existsSync(web) ? web : undefined,
    demoPictures: fileURLToPath(new URL('demo/pictures/', SERVER_ROOT)),
    version: manifest.version,
    command: env['JUBB_COMMAND'] ?? './jubb',
    proxies: (env['JUBB_PROXIES'] ?? '').split(/[\s,]+/u).filter(Boolean),
    lan: env['JUBB_LAN'] ? (JSON.parse(env['JUBB_LAN']) as Lan) : undefined,
    dataFolder: env['JUBB_HOME'] ?? '.',
    diskWarnShare: wholeNumber(env['JUBB_DISK_WARN_PERCENT'] ?? '10', 'JUBB_DISK_WARN_PERCENT', 100) / 100,
    sheetSeconds: wholeNumber(env['JUBB_SHEET_SECONDS'] ?? '10', 'JUBB_SHEET_SECONDS', 3600),
    filesMb: wholeNumber(env['JUBB_FILES_MB'] ?? '50000', 'JUBB_FILES_MB', 100_000_000),
    requestsPer10s: wholeNumber(env['JUBB_REQUESTS_PER_10S'] ?? '1000', 'JUBB_REQUESTS_PER_10S', 100_000_000),
  };
}

function wholeNumber(text: string, name: string, most: number): number {
  const size = Number(text);
  if (!Number.isInteger(size) || size < 0 || size > most) throw new Error(`${name} is "${text}"; a whole number from 0 to ${most} is due`);
  return size;
}
