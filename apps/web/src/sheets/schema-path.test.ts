import { sheetFileSchema } from '@jubb/sheet/file';
import { expect, test } from '@jest/globals';
import { pathTo, schemaAt, type Schema } from './schema-path.ts';

const ROOT = sheetFileSchema() as Schema;

test('follows the published schema through lists and references', () => {
  expect(Object.keys(schemaAt(ROOT, ['joints'])?.properties ?? {})).toEqual(expect.arrayContaining(['ref', 'thread', 'hand', 'drive']));
  expect(schemaAt(ROOT, ['joints', 'hand'])?.enum).toEqual(expect.arrayContaining(['right', 'left']));
  expect(schemaAt(ROOT, ['steps', 'ways'])?.properties).toHaveProperty('reason');
  expect(schemaAt(ROOT, ['joints', 'nothing'])).toBeUndefined();
});

test('knows by the indentation where a line stands, and what stands beside it', () => {
  const lines = ['ref: nut', 'ways:', '  - ref: dry', '    reason: held', '    ', '  - ref: oiled', 'title: Nut'];
  expect(pathTo(lines, 4)).toEqual({ path: ['ways'], beside: ['reason', 'ref'] });
  expect(pathTo(lines, 6)).toEqual({ path: [], beside: ['ways', 'ref'] });
  expect(pathTo(lines, 0).path).toEqual([]);
});
