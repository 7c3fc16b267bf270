// ./jubb start --lan: https for the tablets of the shop, by Caddy with an authority of the shop's own, or a certificate that is given.
import { X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { hostname, networkInterfaces } from 'node:os';
import { join, resolve } from 'node:path';
import { isTaken } from './postgres.mjs';
import { Stop } from './say.mjs';
import { AVAHI, CADDY, ROOT, ensureDebian, home, portFrom, run } from './setup.mjs';

/** What the machine is called in the shop's network; its daemon answers for it (multicast DNS, RFC 6762). */
export function nameOnNetwork() {
  return `${hostname().split('.')[0].toLowerCase()}.local`;
}

/** Addresses by which other machines reach this one, IPv4. */
function addresses() {
  return Object.values(networkInterfaces())
    .flat()
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => address);
}

/** What is asked for by `--lan`, or nothing. */
export function lanAsked(args) {
  if (!args.includes('--lan')) return undefined;
  const after = (flag) => (args.includes(flag) ? args[args.indexOf(flag) + 1] : undefined);
  const [certificate, key] = [after('--certificate'), after('--key')];
  if ((certificate === undefined) !== (key === undefined))
    throw new Stop('--certificate and --key go together: a certificate is of no use without its key, nor the key without it');
  for (const [flag, file] of [
    ['--certificate', certificate],
    ['--key', key],
  ])
    if (file !== undefined && !existsSync(file)) throw new Stop(`${flag} is "${file}": there is no such file`);
  if (certificate !== undefined) checkCertificate(certificate);
  return {
    secure: portFrom('JUBB_LAN_PORT', '4443'),
    plain: portFrom('JUBB_LAN_TRUST_PORT', '4480'),
    ...(certificate === undefined ? {} : { certificate: resolve(certificate), key: resolve(key) }),
  };
}

/** What asks for it again, from wherever that is asked. */
export function lanArgs(lan) {
  if (!lan) return [];
  return ['--lan', ...(lan.certificate === undefined ? [] : ['--certificate', lan.certificate, '--key', lan.key])];
}

function checkCertificate(file) {
  let read;
  try {
    read = new X509Certificate(readFileSync(file));
  } catch {
    throw new Stop(`--certificate is "${file}": it is no certificate (PEM)`);
  }
  if (Date.parse(read.validTo) < Date.now()) throw new Stop(`The certificate ${file} ended ${read.validTo}: a newer one is needed`);
}

export function lanFolder() {
  return join(home(), 'lan');
}

/** The authority that the tablets are asked to trust; there once Caddy has run. */
export function authorityFile() {
  return join(lanFolder(), 'pki', 'authorities', 'local', 'root.crt');
}

/** Sets up what stands between the network and the server at `port`: gives what the server is told of it, and Caddy's arguments. */
export async function prepareLan({ secure, plain, certificate, key }, port) {
  ensureDebian([CADDY, ...(existsSync('/run/systemd/system') ? [AVAHI] : [])]);
  for (const [name, wanted] of [
    ['JUBB_LAN_PORT', secure],
    ['JUBB_LAN_TRUST_PORT', plain],
  ])
    if (await isTaken(wanted)) throw new Stop(`Port ${wanted} is taken by another program: set ${name} to a free one`);
  mkdirSync(lanFolder(), { recursive: true, mode: 0o700 });
  const bind = process.env.JUBB_LAN_BIND;
  const hosts = bind === undefined ? [nameOnNetwork(), ...addresses()] : [bind];
  const page = readFileSync(join(ROOT, 'tools', 'trust.html'), 'utf8').replaceAll('{secure}', `https://${hosts[0]}:${secure}`);
  mkdirSync(join(lanFolder(), 'trust'), { recursive: true });
  writeFileSync(join(lanFolder(), 'trust', 'index.html'), page);
  const file = join(lanFolder(), 'Caddyfile');
  writeFileSync(file, caddyfile({ hosts, secure, plain, certificate, key, port, bind }));
  run('caddy', ['validate', '--config', file, '--adapter', 'caddyfile'], { words: 'Setting up https' });
  return {
    caddy: ['run', '--config', file, '--adapter', 'caddyfile'],
    told: {
      secure: hosts.map((host) => `https://${host}:${secure}`),
      // By number: a tablet that knows no names finds it, too.
      ...(certificate === undefined ? { trust: `http://${hosts.at(-1)}:${plain}`, authority: authorityFile() } : {}),
    },
  };
}

/** Caddy 2.6, as Debian has it. Over plain http nothing is given out but the way to trust. */
function caddyfile({ hosts, secure, plain, certificate, key, port, bind }) {
  const bound = bind === undefined ? '' : `\n  bind ${bind}`;
  const tls = certificate === undefined ? 'tls internal' : `tls ${certificate} ${key}`;
  return `{
  admin off
  grace_period 2s
  auto_https disable_redirects
  skip_install_trust
  storage file_system ${lanFolder()}
}

${hosts.map((host) => `https://${host}:${secure}`).join(', ')} {${bound}
  ${tls}
  reverse_proxy 127.0.0.1:${port} {
    flush_interval -1
  }
}
${
  certificate === undefined
    ? `
http://:${plain} {${bound}
  header Cache-Control no-store
  handle /shop.crt {
    root * ${join(lanFolder(), 'pki', 'authorities', 'local')}
    rewrite * /root.crt
    header Content-Type application/x-x509-ca-cert
    header Content-Disposition "attachment; filename=shop.crt"
    file_server
  }
  handle / {
    root * ${join(lanFolder(), 'trust')}
    file_server
  }
  handle {
    respond "Jubb is at https://${hosts[0]}:${secure}. Over plain http there is nothing but the way there: open / here." 403
  }
}
`
    : ''
}`;
}

/** How long what the tablets trust is good: the authority's end, or that of the certificate that was given. */
export function trustedUntil() {
  const file = join(lanFolder(), 'Caddyfile');
  if (!existsSync(file)) return undefined;
  const given = /^ {2}tls (?<certificate>\/\S+) /mu.exec(readFileSync(file, 'utf8'))?.groups.certificate;
  const read = given ?? authorityFile();
  return existsSync(read) ? Date.parse(new X509Certificate(readFileSync(read)).validTo) : undefined;
}
