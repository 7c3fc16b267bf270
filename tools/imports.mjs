// ./jubb imports: docs/imports.txt, which folder of the packages, the server and the web knows which.
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Stop, say } from './say.mjs';
import { ROOT } from './setup.mjs';

const PARTS = ['packages/core', 'packages/sheet', 'packages/book', 'packages/play', 'packages/wire', 'apps/server', 'apps/web'];
/** Folders within these are told apart; a stage of the web is a folder of its own. */
const DEEPER = /^src\/(stages|job)\//u;

export function imports() {
  const text = `${PARTS.map(partText).join('\n\n')}\n`;
  writeFileSync(join(ROOT, 'docs', 'imports.txt'), `Which folder knows which, and in how many places. Made by ./jubb imports.\n\n${text}`);
  say('docs/imports.txt is made anew');
}

function partText(part) {
  const { stdout, status } = spawnSync(
    'npx',
    [
      'depcruise',
      '--no-config',
      '--ts-pre-compilation-deps',
      '--exclude',
      '[.]test(-kit)?[.]ts',
      '--do-not-follow',
      'node_modules|dist',
      '--output-type',
      'json',
      'src',
    ],
    { cwd: join(ROOT, part), encoding: 'utf8', maxBuffer: 1 << 28 },
  );
  if (status !== 0) throw new Stop(`The imports of ${part} cannot be read`);
  const arrows = new Map();
  for (const { source, dependencies } of JSON.parse(stdout).modules) {
    if (!source.startsWith('src/')) continue;
    for (const { resolved, module } of dependencies) {
      const [from, to] = [folderOf(source), module.startsWith('@jubb/') ? module.split('/').slice(0, 2).join('/') : folderOf(resolved)];
      if (from === to || to === undefined) continue;
      const into = arrows.get(from) ?? new Map();
      into.set(to, (into.get(to) ?? 0) + 1);
      arrows.set(from, into);
    }
  }
  const lines = [...arrows]
    .toSorted(([a], [b]) => (a < b ? -1 : 1))
    .map(([from, into]) => {
      const names = [...into].toSorted(([a], [b]) => (a < b ? -1 : 1)).map(([to, count]) => `${to} (${count})`);
      return `  ${from.padEnd(20)} → ${names.join(', ')}`;
    });
  const count = [...arrows.values()].reduce((sum, into) => sum + [...into.keys()].filter((to) => !to.startsWith('@')).length, 0);
  return `${part}: ${arrows.size} folders, ${count} arrows between them\n${lines.join('\n')}`;
}

/** The folder of a file within `src`; the files that lie there by themselves are one. */
function folderOf(path) {
  if (!path?.startsWith('src/')) return undefined;
  const parts = path.split('/').slice(1, -1);
  return parts.slice(0, DEEPER.test(path) ? 2 : 1).join('/') || '(root)';
}
