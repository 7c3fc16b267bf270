import 'reflect-metadata';
// The storage has no public door; class-validator-jsonschema documents this path.
import { defaultMetadataStorage } from 'class-transformer/cjs/storage.js';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import '../model/file.js';

type Schemas = Record<string, Record<string, unknown>>;

const FIGURE = { type: 'string' as const, minLength: 1, maxLength: 40, description: 'a figure with its unit, such as "108 N·m"' };

/** Schemas of every validated class, with unknown fields refused. */
export function classSchemas(refPrefix: string): Schemas {
  const schemas = validationMetadatasToSchemas({
    classTransformerMetadataStorage: defaultMetadataStorage as never,
    refPointerPrefix: refPrefix,
    additionalConverters: {
      isFigure: FIGURE,
      isDay: { type: 'string', format: 'date' },
      isInstant: { type: 'string', format: 'date-time' },
      whitelistValidation: {},
    },
  }) as Schemas;
  return Object.fromEntries(Object.entries(schemas).map(([name, schema]) => [name, { ...schema, additionalProperties: false }]));
}

/** The published JSON Schema of the sheet file. */
export function sheetFileSchema(): Record<string, unknown> {
  const { SheetFile: file, ...rest } = classSchemas('#/$defs/');
  const used = reachable(file, rest);
  return { $schema: 'https://json-schema.org/draft/2020-12/schema', title: 'Jubb sheet file, format 1', ...file, $defs: used };
}

function reachable(from: unknown, all: Schemas): Schemas {
  const found: Schemas = {};
  const visit = (node: unknown): void => {
    for (const [, name = ''] of (JSON.stringify(node) ?? '').matchAll(/"#\/\$defs\/(\w+)"/gu)) {
      const schema = all[name];
      if (!schema || found[name]) continue;
      found[name] = schema;
      visit(schema);
    }
  };
  visit(from);
  return found;
}
