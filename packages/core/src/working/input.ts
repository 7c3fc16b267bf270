import { formatQuantity } from '../quantity/format.js';
import { parseQuantity, shorten } from '../quantity/parse.js';
import { QUANTITIES, type Quantity } from '../quantity/units.js';
import type { ChoiceField, Field, FieldQuantity, ListField, NumberField, Row, TableField, TextField } from './describe.js';
import { refuse, type Issue, type Result } from './issues.js';

type Raw = Readonly<Record<string, unknown>>;
type Values = Record<string, unknown>;

/**
 * Reads untrusted input against the fields of a working: numbers in base units or text with a
 * unit. Every problem is reported, none is repaired.
 */
export function readInput(fields: readonly Field[], raw: unknown): Result<Values> {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) {
    return refuse({ code: 'not-an-object', field: 'input', received: describe(raw) });
  }
  const given = raw as Raw;
  const issues: Issue[] = [];
  const values: Values = {};
  const known = new Set(fields.map((field) => field.name));
  for (const name of Object.keys(given)) {
    if (!known.has(name)) issues.push({ code: 'unknown-field', field: shorten(name), bound: [...known].join(', ') });
  }
  for (const field of fields) {
    const read = readField(field, Object.hasOwn(given, field.name) ? given[field.name] : undefined, given, fields);
    if (read.ok) values[field.name] = read.value;
    else issues.push(...read.issues.map((issue) => ({ label: field.label, ...issue })));
  }
  return issues.length > 0 ? refuse(...issues) : { ok: true, value: values };
}

/** Whether the choice that a field is asked for is the one that stands, said or by default. */
function isAsked({ onlyFor }: Field, given: Raw, fields: readonly Field[]): boolean {
  if (!onlyFor) return true;
  const of = fields.find(({ name }) => name === onlyFor.field);
  const stands = given[onlyFor.field] ?? (of?.kind === 'choice' ? of.default : undefined);
  return typeof stands === 'string' && onlyFor.choices.includes(stands);
}

function readField(field: Field, received: unknown, given: Raw, fields: readonly Field[]): Result<unknown> {
  if (received === undefined || received === null || received === '') {
    if ('default' in field && field.default !== undefined) return { ok: true, value: field.default };
    if (field.optional || !isAsked(field, given, fields)) return { ok: true, value: undefined };
    return refuse({ code: 'required', field: field.name });
  }
  switch (field.kind) {
    case 'number':
      if (field.bareIn && typeof received === 'string' && BARE.test(received.trim())) {
        const choice = given[field.bareIn.field];
        const unit = typeof choice === 'string' && Object.hasOwn(field.bareIn.units, choice) ? field.bareIn.units[choice] : undefined;
        const quantity = quantityOf(field.quantity, given, fields);
        // Nothing is nothing in any unit.
        if (unit === undefined && Number(received) !== 0)
          return refuse({ code: 'unit-missing', field: field.name, received: describe(received), quantity });
        return readNumber(received, field.name, field, quantity, unit);
      }
      return readNumber(received, field.name, field, quantityOf(field.quantity, given, fields), field.share ? '%' : undefined);
    case 'list':
      return readList(received, field, quantityOf(field.quantity, given, fields));
    case 'choice':
      return readChoice(received, field);
    case 'text':
      return readText(received, field);
    case 'table':
      return readTable(received, field);
  }
}

/** The quantity of a field; one that another field names falls back to that field's default. */
export function quantityOf(quantity: FieldQuantity, given: Raw, fields: readonly Field[]): Quantity {
  if (typeof quantity === 'string') return quantity;
  const chosen = given[quantity.from] ?? (fields.find((field) => field.name === quantity.from) as ChoiceField | undefined)?.default;
  return QUANTITIES.find((known) => known === chosen) ?? 'length';
}

type Bounds = Pick<NumberField, 'min' | 'max' | 'above' | 'share'>;

function readNumber(received: unknown, name: string, bounds: Bounds, quantity: Quantity, assumed?: string): Result<number> {
  let base: number;
  if (typeof received === 'number') {
    base = received;
  } else if (typeof received === 'string') {
    const parsed = parseQuantity(received, quantity, name, assumed);
    if (!parsed.ok) return refuse(parsed.issue);
    base = parsed.quantity.base;
  } else {
    return refuse({ code: 'not-a-figure', field: name, received: describe(received), quantity });
  }
  const write = (bound: number): string => formatQuantity(bound, quantity, bounds.share ? '%' : undefined);
  const at = { field: name, received: describe(received), quantity };
  if (!Number.isFinite(base)) return refuse({ code: 'not-finite', ...at });
  if (quantity === 'count' && !Number.isInteger(base)) return refuse({ code: 'not-whole', ...at });
  if (bounds.above !== undefined && base <= bounds.above) {
    return refuse({ code: 'too-small', ...at, bound: `more than ${write(bounds.above)}` });
  }
  if (bounds.min !== undefined && base < bounds.min) return refuse({ code: 'too-small', ...at, bound: write(bounds.min) });
  if (bounds.max !== undefined && base > bounds.max) return refuse({ code: 'too-large', ...at, bound: write(bounds.max) });
  return { ok: true, value: base };
}

function readList(received: unknown, field: ListField, quantity: Quantity): Result<readonly number[]> {
  // Typed lists are parted by blanks, semicolons or new lines: a comma is a decimal sign.
  const items: unknown = typeof received === 'string' ? splitList(received) : received;
  if (!Array.isArray(items)) return refuse({ code: 'not-a-list', field: field.name, received: describe(received) });
  if (items.length < field.fewest)
    return refuse({ code: 'too-few', field: field.name, received: String(items.length), bound: String(field.fewest) });
  if (items.length > field.most)
    return refuse({ code: 'too-many', field: field.name, received: String(items.length), bound: String(field.most) });
  const unit = unitOfList(items, quantity);
  const at = (index: number): { field: string; label: string } => ({
    field: `${field.name}[${index}]`,
    label: `${field.label}, figure ${index + 1}`,
  });
  const read = items.map((item, index): Result<number> => {
    const isBare = typeof item === 'string' && BARE.test(item);
    // Some in one unit and some in another: a bare one may be either.
    if (isBare && unit === 'several') return refuse({ code: 'unit-missing', ...at(index), received: describe(item), quantity });
    return readNumber(item, at(index).field, field, quantity, isBare && unit !== undefined ? unit : undefined);
  });
  const issues = read.flatMap((result, index) => (result.ok ? [] : result.issues.map((issue) => ({ ...issue, label: at(index).label }))));
  if (issues.length > 0) return refuse(...issues);
  return { ok: true, value: read.map((result) => (result.ok ? result.value : Number.NaN)) };
}

/** A figure without a unit. */
const BARE = /^[+\-−–]?\s*(?:\d+\s+\d+\/\d+|\d+\/\d+|[\d.,]+(?:[eE][+-]?\d+)?)\s*$/u;

/** The unit that the figures of a list have where they have one: that of those that name it. */
function unitOfList(items: readonly unknown[], quantity: Quantity): string | undefined {
  const units = items.flatMap((item) => {
    if (typeof item !== 'string' || BARE.test(item)) return [];
    const parsed = parseQuantity(item, quantity, '');
    return parsed.ok && parsed.quantity.unitTyped ? [parsed.quantity.unit.symbol] : [];
  });
  return new Set(units).size > 1 ? 'several' : units[0];
}

/**
 * "0.05; 0.06 0.05 mm" → ["0.05", "0.06", "0.05 mm"]: a word that is no number belongs to the figure before it, and so
 * does a fraction behind a whole number ("1 1/4 in"). The unit of one is the unit of all (`unitOfList`).
 */
export function splitList(text: string): readonly string[] {
  return text.split(/[;\n]+/u).flatMap((part) => {
    const items: string[] = [];
    for (const word of part.split(/\s+/u).filter((one) => one !== '')) {
      const last = items.at(-1);
      const isFraction = /^\d+\/\d/u.test(word) && last !== undefined && /^[+\-−–]?\d+$/u.test(last);
      const belongs = last !== undefined && (isFraction || !/^[+\-−–.,\d]/u.test(word));
      if (belongs) items[items.length - 1] = `${last} ${word}`;
      else items.push(word);
    }
    return items;
  });
}

function readChoice(received: unknown, field: ChoiceField): Result<string> {
  const chosen = field.choices.find((choice) => choice.id === received);
  if (chosen) return { ok: true, value: chosen.id };
  return refuse({
    code: 'not-a-choice',
    field: field.name,
    received: describe(received),
    bound: field.choices.map((choice) => choice.id).join(', '),
  });
}

function readText(received: unknown, field: TextField): Result<string> {
  if (typeof received !== 'string') return refuse({ code: 'not-text', field: field.name, received: describe(received) });
  if (received.length > field.longest) {
    return refuse({ code: 'too-many', field: field.name, received: `${received.length} letters`, bound: `${field.longest} letters` });
  }
  return { ok: true, value: received };
}

function readTable(received: unknown, field: TableField): Result<readonly Row[]> {
  if (!Array.isArray(received)) return refuse({ code: 'not-a-list', field: field.name, received: describe(received) });
  const fewest = field.fewest ?? 0;
  const most = field.most ?? 1000;
  if (received.length < fewest)
    return refuse({ code: 'too-few', field: field.name, received: String(received.length), bound: String(fewest) });
  if (received.length > most)
    return refuse({ code: 'too-many', field: field.name, received: String(received.length), bound: String(most) });
  const columns = field.columns.map((column): Field =>
    column.quantity === 'text' || column.quantity === 'yes-no'
      ? { kind: 'text', name: column.name, label: column.label, help: '', longest: 200 }
      : { kind: 'number', name: column.name, label: column.label, help: '', quantity: column.quantity, min: -1e6, max: 1e6 },
  );
  const read = received.map((row) => readInput(columns, row));
  const issues = read.flatMap((result, index) =>
    result.ok
      ? []
      : result.issues.map((issue) => ({
          ...issue,
          field: `${field.name}[${index}].${issue.field}`,
          label: `${field.label}, row ${index + 1}, ${issue.label ?? issue.field}`,
        })),
  );
  if (issues.length > 0) return refuse(...issues);
  return { ok: true, value: read.map((result) => (result.ok ? (result.value as Row) : {})) };
}

function describe(received: unknown): string {
  if (typeof received === 'string') return shorten(received);
  if (typeof received === 'number') return String(received);
  return shorten(JSON.stringify(received) ?? String(received));
}
