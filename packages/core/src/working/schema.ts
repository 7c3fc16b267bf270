import { QUANTITIES, baseUnit } from '../quantity/units.js';
import type { Field, Working } from './describe.js';

type JsonSchema = Readonly<Record<string, unknown>>;

/** JSON Schema (draft 2020-12) of a working's input, made from its description. */
export function inputSchema(working: Working): JsonSchema {
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: working.title,
    type: 'object',
    additionalProperties: false,
    // What is asked for one choice alone is needed with that choice only: the working says so.
    required: working.inputs.filter((field) => !field.optional && !field.onlyFor && !('default' in field)).map((field) => field.name),
    properties: Object.fromEntries(working.inputs.map((field) => [field.name, fieldSchema(field)])),
  };
}

function fieldSchema(field: Field): JsonSchema {
  const about = { title: field.label, description: field.help, ...('default' in field ? { default: field.default } : {}) };
  switch (field.kind) {
    case 'number':
      return { ...about, ...figureSchema(field) };
    case 'list':
      return {
        ...about,
        anyOf: [{ type: 'array', minItems: field.fewest, maxItems: field.most, items: figureSchema(field) }, { type: 'string' }],
      };
    case 'choice':
      return { ...about, enum: field.choices.map((choice) => choice.id) };
    case 'text':
      return { ...about, type: 'string', maxLength: field.longest };
    case 'table':
      return {
        ...about,
        type: 'array',
        minItems: field.fewest ?? 0,
        maxItems: field.most ?? 1000,
        items: {
          type: 'object',
          additionalProperties: false,
          required: field.columns.map((column) => column.name),
          properties: Object.fromEntries(
            field.columns.map((column) => [
              column.name,
              column.quantity === 'text' ? { type: 'string' } : { anyOf: [{ type: 'number' }, { type: 'string' }] },
            ]),
          ),
        },
      };
  }
}

function figureSchema(field: Extract<Field, { kind: 'number' | 'list' }>): JsonSchema {
  const quantity = typeof field.quantity === 'string' ? field.quantity : undefined;
  const unit = quantity
    ? baseUnit(quantity).symbol
    : `the base unit of what "${(field.quantity as { from: string }).from}" says (${QUANTITIES.length} quantities)`;
  const bounds = {
    ...(field.min === undefined ? {} : { minimum: field.min }),
    ...(field.max === undefined ? {} : { maximum: field.max }),
    ...('above' in field && field.above !== undefined ? { exclusiveMinimum: field.above } : {}),
  };
  return {
    anyOf: [
      { type: quantity === 'count' ? 'integer' : 'number', ...bounds, $comment: unit === '' ? 'a plain number' : `in ${unit}` },
      { type: 'string', minLength: 1, maxLength: 40, $comment: 'a figure with its unit' },
    ],
  };
}
