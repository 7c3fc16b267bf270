// The sheets of the demo, read and looked through, and its two years, worked by them, so that a first start does not have to.
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const { LIBRARY, begunSheet, readLibrary } = await import('../apps/server/dist/demo/demo-library.js');
const { playAll } = await import('../apps/server/dist/demo/demo-played.js');
const FOLDER = new URL('../apps/server/demo/sheets/', import.meta.url);
const PICTURES = fileURLToPath(new URL('../apps/server/demo/pictures/', import.meta.url));

const sheets = readdirSync(FOLDER)
  .toSorted()
  .flatMap((name) => {
    try {
      return readLibrary([readFileSync(new URL(name, FOLDER), 'utf8')]);
    } catch (fault) {
      throw new Error(`${name}: ${fault.message}`, { cause: fault });
    }
  });
writeFileSync(LIBRARY, JSON.stringify([...sheets, begunSheet(sheets)]));
await playAll(PICTURES);
