// The sheets of the demo, read and looked through, so that a first start does not have to.
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';

const { LIBRARY, readLibrary } = await import('../apps/server/dist/demo/demo-library.js');
const FOLDER = new URL('../apps/server/demo/sheets/', import.meta.url);

const sheets = readdirSync(FOLDER)
  .toSorted()
  .flatMap((name) => {
    try {
      return readLibrary([readFileSync(new URL(name, FOLDER), 'utf8')]);
    } catch (fault) {
      throw new Error(`${name}: ${fault.message}`, { cause: fault });
    }
  });
writeFileSync(LIBRARY, JSON.stringify(sheets));
