// What systemd and a shell are told of Jubb as a service. As a program: writes anew what an older version wrote.
import { existsSync, readFileSync, realpathSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { lanArgs } from './lan.mjs';
import { PROGRAM, run } from './setup.mjs';

export const USER = 'jubb';
export const CURRENT = join(PROGRAM, 'current');
export const SHOP = '/var/lib/jubb';
export const UNIT = '/etc/systemd/system/jubb.service';
export const COMMAND = '/usr/local/bin/jubb';
const SETTINGS = '/etc/jubb.env';
/** What a service is told of the environment that it was installed or changed in. */
const TOLD = ['JUBB_LAN_PORT', 'JUBB_LAN_TRUST_PORT', 'JUBB_LAN_BIND'];

export const isBooted = () => existsSync('/run/systemd/system');
export const systemctl = (...args) => run('systemctl', args, { words: `systemctl ${args.join(' ')}` });

const node = `${process.execPath} ${join(CURRENT, 'tools/jubb.mjs')}`;

/** Its shop is all that it may write, and a disk for the backups that is mounted. */
const unit = (args) => `[Unit]
Description=Jubb, the bench book of a rebuild shop
After=network-online.target
Wants=network-online.target

[Service]
User=${USER}
EnvironmentFile=${SETTINGS}
WorkingDirectory=/
ExecStart=${[node, 'start', '--empty', '--stay', ...args].join(' ')}
Restart=always
RestartSec=3
KillMode=mixed
TimeoutStopSec=90
UMask=0077
NoNewPrivileges=yes
AmbientCapabilities=CAP_NET_BIND_SERVICE
CapabilityBoundingSet=CAP_NET_BIND_SERVICE
ProtectSystem=full
ProtectHome=yes
PrivateDevices=yes
ProtectKernelTunables=yes
ProtectControlGroups=yes
RestrictSUIDSGID=yes

[Install]
WantedBy=multi-user.target
`;

const COMMAND_TEXT = `#!/bin/sh
# Jubb as a service of this machine. What is asked of the shop is asked as its user.
[ "$(id -u)" = 0 ] || exec sudo "$0" "$@"
set -a
. ${SETTINGS}
set +a
case "$1" in
  start | stop) exec systemctl "$1" jubb.service ;;
  install | update | lan) exec ${node} "$@" ;;
  backup)
    # A new place for the backups is made, and given to who fills it.
    case "\${2:-}" in
      '' | -*) ;;
      *)
        set -- backup "$(realpath -m "$2")"
        mkdir -p "$2" && [ -n "$(ls -A "$2")" ] || chown ${USER}: "$2"
        ;;
    esac
    ;;
esac
cd /
exec runuser -u ${USER} -- ${node} "$@"
`;

/** Lines of the settings that are there stay, but for what is said anew. */
export function writeSettings(said) {
  const there = existsSync(SETTINGS) ? readFileSync(SETTINGS, 'utf8').split('\n').filter(Boolean) : [];
  const now = new Map(there.map((line) => [line.slice(0, line.indexOf('=')), line.slice(line.indexOf('=') + 1)]));
  const told = Object.fromEntries(TOLD.flatMap((name) => (process.env[name] === undefined ? [] : [[name, process.env[name]]])));
  const all = { JUBB_HOME: SHOP, JUBB_COMMAND: '"sudo jubb"', ...told, ...said };
  for (const [name, value] of Object.entries(all)) now.set(name, value);
  writeFileSync(SETTINGS, [...[...now].map(([name, value]) => `${name}=${value}`), ''].join('\n'));
}

export function writeUnit(lan) {
  put(unit(lanArgs(lan).map((one) => JSON.stringify(one))));
}

function put(text) {
  writeFileSync(UNIT, text);
  if (isBooted()) systemctl('daemon-reload');
}

export function writeCommand() {
  writeFileSync(COMMAND, COMMAND_TEXT, { mode: 0o755 });
}

/** By what it was begun with so far: on the network with its certificate, or not. */
function asBefore() {
  const [, args = ''] = /^ExecStart=.* --stay ?(.*)$/mu.exec(readFileSync(UNIT, 'utf8')) ?? [];
  return args === '' ? [] : args.split(/ (?=")/u);
}

if (process.argv[1] !== undefined && import.meta.url === pathToFileURL(realpathSync(process.argv[1])).href) {
  writeSettings({});
  put(unit(asBefore()));
  writeCommand();
}
