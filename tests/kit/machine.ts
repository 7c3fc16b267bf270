import { spawn, spawnSync, type ChildProcess, type SpawnSyncReturns } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './server.ts';
import { until } from './stream.ts';

/** So long it may take to boot, and what is begun in it to be there, ms. */
export const BOOTS_MS = 120_000;

const KINDS = ['--mount', '--pid', '--fork', '--uts', '--ipc', '--net', '--cgroup', '--kill-child'];

/** Sets the root of the machine up, in namespaces of its own, and becomes its first process. Whatever it mounts goes with it. */
const BOOT = String.raw`set -e
mount --make-rprivate /
mount -t overlay overlay -o "lowerdir=$3,upperdir=$1/upper,workdir=$1/work" "$1/root"
cd "$1/root"
mount -t proc proc proc
mount -t sysfs sysfs sys
for place in run tmp dev sys/fs/cgroup; do mount -t tmpfs tmpfs $place; done
for device in null zero random urandom full tty; do touch dev/$device; mount --bind /dev/$device dev/$device; done
mkdir dev/pts dev/shm
mount -t devpts devpts dev/pts -o newinstance,ptmxmode=0666
ln -s pts/ptmx dev/ptmx
if [ -e /sys/fs/cgroup/cgroup.controllers ]; then
  mount -t cgroup2 cgroup sys/fs/cgroup
else
  mkdir sys/fs/cgroup/systemd
  mount -t cgroup -o none,name=systemd cgroup sys/fs/cgroup/systemd
fi
mkdir -p "tmp/shop" && mount --bind "$1" tmp/shop
# Its packages are those of the checkout.
mkdir -p ".$2" && mount --bind "$2" ".$2"
exec chroot . env -i container=test PATH=/usr/sbin:/usr/bin:/sbin:/bin /lib/systemd/systemd --unit=multi-user.target --show-status=no`;

/** Whether this machine lets another be booted within it, whose users read the checkout. */
export function canBoot(checkout: string): boolean {
  const tries =
    'mount --make-rprivate / && mount -t tmpfs tmpfs /mnt && mkdir /mnt/u /mnt/w && mount -t overlay o -o lowerdir=/,upperdir=/mnt/u,workdir=/mnt/w /mnt';
  const isAllowed = (command: string, args: readonly string[]): boolean => spawnSync(command, args).status === 0;
  return (
    process.getuid?.() === 0 &&
    isAllowed('unshare', [...KINDS, 'sh', '-c', tries]) &&
    isAllowed('runuser', ['-u', 'nobody', '--', 'test', '-r', join(checkout, 'package.json')])
  );
}

/** A machine of its own within this one: its files over those of a Debian, its processes, its network, its systemd. */
export class Machine {
  readonly #folder: string;
  readonly #debian: string;
  #child: ChildProcess | undefined;
  #first = 0;

  /** What it writes lies in the folder, which it sees as /tmp/shop; the Debian stays as it is. */
  constructor(folder: string, debian: string) {
    this.#folder = folder;
    this.#debian = debian;
    for (const one of ['upper', 'work', 'root']) mkdirSync(join(folder, one), { recursive: true });
  }

  async boot(): Promise<void> {
    const child = spawn('unshare', [...KINDS, 'sh', '-c', BOOT, 'boot', this.#folder, ROOT, this.#debian], {
      stdio: ['ignore', 'ignore', 'pipe'],
    });
    let said = '';
    child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()));
    this.#child = child;
    await until(() => {
      if (child.exitCode !== null) throw new Error(`it does not boot: ${said}`);
      const children = `/proc/${child.pid}/task/${child.pid}/children`;
      this.#first = existsSync(children) ? Number(readFileSync(children, 'utf8').trim()) : 0;
      return this.#first > 0 && /running|degraded/u.test(this.run('systemctl', ['is-system-running']).stdout);
    }, BOOTS_MS);
  }

  /** As if its plug was drawn. */
  async drawPlug(): Promise<void> {
    const child = this.#child;
    if (!child || this.#first === 0 || child.exitCode !== null) return;
    const isOver = new Promise((resolve) => child.once('exit', resolve));
    process.kill(this.#first, 'SIGKILL');
    await isOver;
  }

  run(command: string, args: readonly string[], env: Readonly<Record<string, string>> = {}): SpawnSyncReturns<string> {
    const into = ['--target', String(this.#first), '--mount', '--pid', '--uts', '--ipc', '--net', '--cgroup', '--root', '--wd'];
    const path = 'PATH=/usr/local/sbin:/usr/local/bin:/usr/sbin:/usr/bin:/sbin:/bin';
    const own = Object.entries(env).map(([name, value]) => `${name}=${value}`);
    return spawnSync('nsenter', [...into, 'env', '-i', path, ...own, command, ...args], { encoding: 'utf8' });
  }

  /** What a program of Node.js prints there. */
  node(program: string): string {
    return this.run('node', ['--input-type=module', '-e', program]).stdout;
  }
}
