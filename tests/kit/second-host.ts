import { spawnSync } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { launchBrowser } from '../../tools/browser.mjs';

function run(command: string, ...args: readonly string[]): string {
  const { status, stdout, stderr, error } = spawnSync(command, args, { encoding: 'utf8' });
  if (status !== 0) throw new Error(`${command} ${args.join(' ')}: ${error?.message ?? stderr}`);
  return stdout;
}

/** Whether this machine lets another host be set up beside it, on a cable of their own. */
export function canHost(): boolean {
  const name = `jubb-try-${process.pid}`;
  const ip = (...args: readonly string[]): boolean => spawnSync('ip', args).status === 0;
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/certutil') || !ip('netns', 'add', name)) return false;
  const isAllowed = ip('link', 'add', `jt${process.pid}`.slice(0, 15), 'type', 'veth', 'peer', 'name', 'eth0', 'netns', name);
  ip('netns', 'del', name);
  return isAllowed;
}

/** Kept for what is nowhere (RFC 5737); a machine may stand in one of them all the same. */
const NETS = ['198.51.100', '203.0.113', '192.0.2'] as const;

/** A second host: a network of its own, one cable to this machine, and a browser that trusts nobody whom others do not. */
export class SecondHost {
  /** Of this machine on the cable between them. */
  readonly here: string;
  readonly #name = `jubb-${process.pid}`;
  readonly #plug = `jb${process.pid}`.slice(0, 15);
  readonly #folder: string;

  /** What its browser keeps lies in the folder. */
  constructor(folder: string) {
    this.#folder = folder;
    const taken = Object.values(networkInterfaces()).flatMap((all = []) => all.map(({ address }) => address));
    const net = NETS.find((one) => !taken.some((address) => address.startsWith(`${one}.`)))!;
    this.here = `${net}.1`;
    run('ip', 'netns', 'add', this.#name);
    run('ip', 'link', 'add', this.#plug, 'type', 'veth', 'peer', 'name', 'eth0', 'netns', this.#name);
    run('ip', 'addr', 'add', `${this.here}/24`, 'dev', this.#plug);
    run('ip', 'link', 'set', this.#plug, 'up');
    this.#in('ip', 'addr', 'add', `${net}.2/24`, 'dev', 'eth0');
    this.#in('ip', 'link', 'set', 'lo', 'up');
    this.plugIn();
    mkdirSync(join(folder, 'home', '.pki', 'nssdb'), { recursive: true });
    this.#certutil('-N', '--empty-password');
  }

  #in(command: string, ...args: readonly string[]): string {
    return run('ip', 'netns', 'exec', this.#name, command, ...args);
  }

  #certutil(...args: readonly string[]): void {
    run('certutil', '-d', `sql:${join(this.#folder, 'home', '.pki', 'nssdb')}`, ...args);
  }

  /** What an address answers there; throws where it does not. */
  get(address: string): { readonly status: number; readonly body: string } {
    const asked = `fetch(${JSON.stringify(address)}).then(async (r) => console.log(JSON.stringify({ status: r.status, body: await r.text() })))`;
    return JSON.parse(this.#in(process.execPath, '-e', asked)) as { readonly status: number; readonly body: string };
  }

  /** Has its browser trust an authority (PEM), as somebody does in a tablet's settings. */
  trust(authority: string): void {
    const file = join(this.#folder, 'shop.crt');
    writeFileSync(file, authority);
    this.#certutil('-A', '-n', 'shop', '-t', 'C,,', '-i', file);
  }

  drawCable(): void {
    this.#in('ip', 'link', 'set', 'eth0', 'down');
  }

  plugIn(): void {
    this.#in('ip', 'link', 'set', 'eth0', 'up');
  }

  /** A browser on it, begun anew: what it trusts is read as it begins. */
  browser(): Promise<{ readonly browser: Browser; readonly close: () => Promise<void> }> {
    const executable = join(this.#folder, 'chromium');
    writeFileSync(
      executable,
      `#!/bin/sh\nexec ip netns exec ${this.#name} env HOME=${join(this.#folder, 'home')} /usr/bin/chromium "$@"\n`,
    );
    chmodSync(executable, 0o755);
    // Its port for whoever drives it would be one of the other network.
    return launchBrowser({ executable, isPiped: true });
  }

  /** The cable goes with it. */
  end(): void {
    run('ip', 'netns', 'del', this.#name);
  }
}
