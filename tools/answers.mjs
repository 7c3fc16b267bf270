// The JSON Schema of everything that the server answers, from the types of the wire: for the document of the interface.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createGenerator } from 'ts-json-schema-generator';

const { RECORDS } = await import('../packages/sheet/dist/index.js');
const { PROBLEMS } = await import('../packages/wire/dist/index.js');
const WIRE = join(import.meta.dirname, '..', 'packages', 'wire');

const schema = createGenerator({
  path: join(WIRE, 'dist', 'index.d.ts'),
  tsconfig: join(WIRE, 'tsconfig.answers.json'),
  type: 'Documented',
  skipTypeCheck: true,
  additionalProperties: true,
}).createSchema('Documented');
const { definitions } = schema;
// Types that are the names of a table are told by the table.
for (const [name, table] of Object.entries({ ProblemCode: PROBLEMS, RecordKind: RECORDS }))
  definitions[name] = { type: 'string', enum: Object.keys(table) };
// Each answer by its own name, whatever it is made of.
const answers = definitions.Documented.properties;
writeFileSync(join(WIRE, 'dist', 'answers.json'), JSON.stringify({ definitions: { ...definitions, ...inline(answers, definitions) } }));

function inline(named, all) {
  return Object.fromEntries(Object.entries(named).filter(([name]) => !(name in all)));
}
