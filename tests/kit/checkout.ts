import { cpSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './server.ts';

/** A checkout as it stands built, with the packages of this one. */
export function checkout(place: string): string {
  const left = new Set(['.git', '.jubb', 'node_modules', 'docs', 'tests'].map((one) => join(ROOT, one)));
  cpSync(ROOT, place, { recursive: true, verbatimSymlinks: true, filter: (from) => !left.has(from) });
  symlinkSync(join(ROOT, 'node_modules'), join(place, 'node_modules'));
  return place;
}

function replace(file: string, from: RegExp | string, to: string): void {
  const text = readFileSync(file, 'utf8');
  const changed = text.replace(from, to);
  if (changed === text) throw new Error(`${file} has no ${from}`);
  writeFileSync(file, changed);
}

/** Makes it the next version: with a change of the database, in SQL, and whatever else it does before it listens. */
export function asVersion(place: string, version: string, change: string, first = ''): string {
  for (const manifest of ['package.json', 'apps/server/package.json'])
    replace(join(place, manifest), /"version": "[^"]*"/u, `"version": "${version}"`);
  const source = join(place, 'apps/server/dist/database/data-source.js');
  replace(source, 'Benches1765200000000,', 'Benches1765200000000, Later9900000000000,');
  const later = `class Later9900000000000 {
  name = 'Later9900000000000';
  up = (runner) => runner.query(${JSON.stringify(change)});
}`;
  writeFileSync(source, `${readFileSync(source, 'utf8')}\n${later}\n`);
  replace(join(place, 'apps/server/dist/main.js'), 'await app.listen', `${first}\nawait app.listen`);
  return place;
}
