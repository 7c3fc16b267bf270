// The sheets of the demo, read and looked through, so that a first start does not have to.
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';

const { LIBRARY, readLibrary } = await import('../apps/server/dist/demo/demo-library.js');
const FOLDER = new URL('../apps/server/demo/sheets/', import.meta.url);

const texts = readdirSync(FOLDER)
  .toSorted()
  .map((name) => readFileSync(new URL(name, FOLDER), 'utf8'));
writeFileSync(LIBRARY, JSON.stringify(readLibrary(texts)));
