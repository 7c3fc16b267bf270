import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, readFileSync, realpathSync, symlinkSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { ROOT } from './server.ts';

/** Enters it with the network of this machine, to fetch from Debian; nothing of it is running. */
const ENTER = String.raw`set -e
mount --make-rprivate /
mount -t proc proc "$1/proc"
mount -t sysfs sysfs "$1/sys"
mount --rbind /dev "$1/dev"
mount -t tmpfs tmpfs "$1/run"
mkdir -p "$1$2" && mount --bind "$2" "$1$2"
debian=$1; shift 2
exec chroot "$debian" env -i PATH=/usr/sbin:/usr/bin:/sbin:/bin HOME=/root "$@"`;

function ran(command: string, args: readonly string[]): string {
  const { status, stdout, stderr, error } = spawnSync(command, args, { encoding: 'utf8' });
  if (status !== 0)
    throw new Error(`${command} ${args.join(' ')}: ${error?.message ?? `${stdout}${stderr}`.split('\n').slice(-20).join('\n')}`);
  return stdout;
}

/** Where this machine has its own Debian from, and which. */
function whence(): { readonly release: string; readonly mirror: string } {
  const release = /^VERSION_CODENAME=(\w+)$/mu.exec(readFileSync('/etc/os-release', 'utf8'))?.[1];
  const lists = ran('apt-get', ['indextargets', '--format', '$(RELEASE) $(SITE)', 'Created-By: Packages']).split('\n');
  const mirror = lists.find((line) => line.startsWith(`${release} `))?.split(' ')[1];
  if (!release || !mirror) throw new Error('apt knows no mirror of the Debian that runs here');
  return { release, mirror };
}

/**
 * A bare Debian as debootstrap makes it, of the release that runs here: with systemd, with what a test looks at processes by,
 * and with the Node.js that the README asks for. Nothing else is in it.
 */
export function bareDebian(place: string): void {
  const { release, mirror } = whence();
  ran('debootstrap', ['--variant=minbase', '--include=systemd-sysv,procps', release, place, mirror]);
  const npm = join(dirname(realpathSync(process.execPath)), '../lib/node_modules/npm');
  mkdirSync(join(place, 'usr/lib/node_modules'), { recursive: true });
  cpSync(process.execPath, join(place, 'usr/bin/node'), { dereference: true });
  cpSync(npm, join(place, 'usr/lib/node_modules/npm'), { recursive: true });
  symlinkSync('../lib/node_modules/npm/bin/npm-cli.js', join(place, 'usr/bin/npm'));
  cpSync('/etc/resolv.conf', join(place, 'etc/resolv.conf'), { dereference: true });
}

/** Runs a program of Node.js in it, which sees the checkout where it lies. */
export function nodeIn(place: string, program: string): string {
  return ran('unshare', [
    ...['--mount', '--pid', '--fork', '--uts', '--ipc', '--kill-child', 'sh', '-c', ENTER, 'enter', place, ROOT],
    ...['node', '--input-type=module', '-e', program],
  ]);
}
