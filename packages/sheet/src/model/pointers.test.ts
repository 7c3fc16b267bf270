import { expect, test } from '@jest/globals';
import { sheetFileSchema } from '../reading/schema.js';
import { all } from '../library.test-kit.js';
import { DECLARED_POINTERS, everyPointer, mapPointers, pointersOf } from './pointers.js';
import { SHEET_LISTS } from './lists.js';

interface Schema {
  readonly $ref?: string;
  readonly pattern?: string;
  readonly type?: string;
  readonly items?: Schema;
  readonly allOf?: readonly Schema[];
  readonly properties?: Readonly<Record<string, Schema>>;
}

/** Fields of a line that are refs of other lines, by the published schema, with the path that they stand at. */
function refFields(schema: Schema, defs: Readonly<Record<string, Schema>>, at: string): readonly string[] {
  const [one] = schema.allOf ?? [];
  const held = schema.$ref ? defs[schema.$ref.split('/').at(-1)!]! : (one ?? schema);
  if (held !== schema) return refFields(held, defs, at);
  if (schema.items) return refFields(schema.items, defs, `${at}[]`);
  if (schema.properties) return Object.entries(schema.properties).flatMap(([name, of]) => refFields(of, defs, `${at}.${name}`));
  return schema.pattern?.startsWith('^[a-z0-9]+') ? [at] : [];
}

test('every field of a sheet that holds the ref of another line is declared as a pointer', () => {
  const schema = sheetFileSchema() as { properties: Record<string, Schema>; $defs: Record<string, Schema> };
  const fields = SHEET_LISTS.flatMap((list) => refFields(schema.properties[list]!.items!, schema.$defs, list));
  const others = fields.filter((field) => !field.endsWith('.ref'));
  expect(others.length).toBeGreaterThan(30);
  expect([...DECLARED_POINTERS].toSorted()).toEqual(others.toSorted());
});

test('a pointer is told with its place, in a list within a list too', () => {
  const step = { record: { kind: 'count', counts: [{ part: 'a' }, { part: 'b' }] }, after: ['one'] };
  expect(pointersOf('steps', step).map(({ path, ref }) => `${path} ${ref}`)).toEqual([
    'record.counts[0].part a',
    'record.counts[1].part b',
    'after[0] one',
  ]);
});

test('what points elsewhere is a copy; what does not stays what it was', () => {
  const joint = { ref: 'screws', part: 'screw', count: 4 };
  expect(mapPointers('joints', joint, ({ ref }) => `${ref}-2`)).toEqual({ ref: 'screws', part: 'screw-2', count: 4 });
  expect(joint.part).toBe('screw');
});

test('all that the demo sheets point to is there', () => {
  for (const [, sheet] of all) {
    const refs = new Set(SHEET_LISTS.flatMap((list) => (sheet[list] ?? []).map(({ ref }) => `${list}/${ref}`)));
    const loose = everyPointer(sheet).filter(({ lists, ref }) => !lists.some((list) => refs.has(`${list}/${ref}`)));
    expect(loose).toEqual([]);
    expect(everyPointer(sheet).length).toBeGreaterThan(20);
  }
});
