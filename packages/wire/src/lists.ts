import { MATERIAL_IDS, parseQuantity, type Quantity } from '@jubb/core';
import { BENCH_KINDS, CRIB_KINDS, ROLES, STOCK_KINDS, STOCK_UNITS, TOOL_READS, isPushing, type CribKind } from '@jubb/sheet';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsBoolean, IsIn, IsObject } from 'class-validator';
import type { BenchBody } from './benches.js';
import type { ToolBody } from './crib.js';
import type { CustomerBody } from './customers.js';
import type { NewPersonBody } from './people.js';
import type { FieldProblem } from './views.js';
import type { OfferBody, StockItemBody } from './stores.js';

/** Lists of the shop that come in as a table. */
export const LISTS = ['people', 'benches', 'customers', 'tools', 'stores', 'prices'] as const;
export type ListName = (typeof LISTS)[number];

/** So many rows come in at a time. */
export const MOST_ROWS = 1000;
export const LONGEST_CELL = 300;

export interface ListColumn {
  readonly name: string;
  readonly label: string;
  readonly needed?: true;
  /** What else stands over such a column. */
  readonly also?: readonly string[];
  readonly example: string;
}

export const LIST_COLUMNS = {
  people: [
    { name: 'login', label: 'Log-in', needed: true, also: ['login', 'user'], example: 'mira' },
    { name: 'name', label: 'Name', needed: true, also: ['who', 'full name'], example: 'Mira Olven' },
    { name: 'role', label: 'Works as', needed: true, also: ['role'], example: 'mechanic' },
    { name: 'password', label: 'First password', also: ['password'], example: 'plumb and level' },
  ],
  benches: [
    { name: 'name', label: 'Name', needed: true, also: ['bench', 'what it is called'], example: '20 t press' },
    { name: 'kind', label: 'Kind', needed: true, also: ['type'], example: 'press' },
    { name: 'who', label: 'Used by', also: ['who', 'log-ins'], example: 'mira, tom' },
    { name: 'open', label: 'Monday to Friday', also: ['open', 'hours'], example: '07:00-16:30' },
    { name: 'out', label: 'Out of use because', also: ['out of use'], example: '' },
  ],
  customers: [
    { name: 'name', label: 'Customer', needed: true, also: ['name', 'company'], example: 'Harrow Lift Company' },
    { name: 'phone', label: 'Telephone', also: ['phone', 'tel'], example: '0555 0199' },
    { name: 'email', label: 'E-mail', also: ['email', 'mail'], example: 'workshop@example.com' },
    { name: 'address', label: 'Address', also: ['street'], example: 'Upper mill' },
    { name: 'machine', label: 'Machine', also: ['vehicle'], example: 'Fork lift 2' },
    { name: 'serial', label: 'Serial of the machine', also: ['serial', 'serial number'], example: 'FL-20417' },
  ],
  tools: [
    { name: 'tag', label: 'Tag', needed: true, also: ['number', 'no'], example: 'W3' },
    { name: 'name', label: 'What it is', needed: true, also: ['tool', 'name', 'description'], example: 'Click wrench 20–200' },
    { name: 'kind', label: 'Kind', needed: true, also: ['type'], example: 'torque wrench' },
    { name: 'unit', label: 'Shows it in', also: ['unit'], example: 'N·m' },
    { name: 'low', label: 'From', also: ['inside', 'min'], example: '20' },
    { name: 'high', label: 'To', also: ['outside', 'max'], example: '200' },
    { name: 'resolution', label: 'Smallest step', also: ['reads to', 'resolution'], example: '1' },
    { name: 'within', label: 'Never further off than', also: ['accuracy', 'limit of error'], example: '4' },
    { name: 'length', label: 'Length', example: '460' },
    { name: 'due', label: 'Check due', also: ['due', 'next check'], example: '2027-06-30' },
    { name: 'everyDays', label: 'Checked every, days', also: ['interval'], example: '365' },
  ],
  stores: [
    { name: 'number', label: 'Number', needed: true, also: ['part number', 'no'], example: 'OR-20x2.65' },
    { name: 'name', label: 'What it is', needed: true, also: ['what', 'name', 'description'], example: 'O-ring 20 x 2.65' },
    { name: 'kind', label: 'Kind', also: ['type'], example: 'o-ring' },
    { name: 'unit', label: 'Counted in', also: ['unit'], example: 'piece' },
    { name: 'size', label: 'Size', example: '20 x 2.65' },
    { name: 'designation', label: 'Designation', example: '' },
    { name: 'material', label: 'Made of', also: ['material'], example: 'NBR' },
    { name: 'shore', label: 'Hardness', also: ['shore'], example: '70' },
    { name: 'location', label: 'Shelf', also: ['location', 'place'], example: 'R1-1' },
    { name: 'minimum', label: 'At least so many', also: ['minimum', 'min'], example: '10' },
    { name: 'price', label: 'Sold at', also: ['price'], example: '0.90' },
    { name: 'onHand', label: 'There', also: ['quantity', 'on hand', 'count'], example: '25' },
  ],
  prices: [
    { name: 'supplier', label: 'Supplier', needed: true, also: ['from'], example: 'Bearing house' },
    { name: 'number', label: 'Number', needed: true, also: ['part number', 'no'], example: 'OR-20x2.65' },
    { name: 'name', label: 'What it is', also: ['what', 'name', 'description'], example: 'O-ring 20 x 2.65' },
    { name: 'price', label: 'One costs', needed: true, also: ['price', 'net'], example: '0.45' },
  ],
} as const satisfies Readonly<Record<ListName, readonly ListColumn[]>>;

/** Rows as they were typed, by the names of the columns. */
export class BringBody {
  @IsIn(LISTS) list: ListName;
  /** Only says what would become of each row. */
  @IsBoolean() preview: boolean;
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(MOST_ROWS) @IsObject({ each: true }) rows: Readonly<Record<string, string>>[];
}

/** What became of a row, or would. */
export interface BroughtRow {
  readonly act: 'made' | 'changed' | 'same' | 'refused';
  /** By what it is known: its log-in, name, tag or number. */
  readonly subject: string;
  readonly wrongs: readonly FieldProblem[];
}

export interface BroughtView {
  readonly rows: readonly BroughtRow[];
}

/** Which column each heading is; a heading that is none, and a needed column that is not there, are named. */
export function columnsOf(
  list: ListName,
  head: readonly string[],
): { readonly names: readonly (string | undefined)[]; readonly unknown: readonly string[]; readonly missing: readonly string[] } {
  const columns: readonly ListColumn[] = LIST_COLUMNS[list];
  const names = head.map((heading) => {
    const wanted = heading.toLowerCase().trim();
    const isIt = ({ name, label, also = [] }: ListColumn): boolean => [name, label, ...also].some((one) => one.toLowerCase() === wanted);
    return columns.find(isIt)?.name;
  });
  return {
    names,
    unknown: head.filter((_, at) => names[at] === undefined),
    missing: columns.filter(({ name, needed }) => needed === true && !names.includes(name)).map(({ label }) => label),
  };
}

export type Cells = Readonly<Record<string, string>>;

/** What a row says, over what was there before; what it leaves empty stays as it was. */
interface Said<T> {
  readonly body: T;
  readonly wrongs: readonly FieldProblem[];
}

/** Gathers what cannot be read, and gives what can. */
class Reader {
  readonly wrongs: FieldProblem[] = [];
  readonly #cells: Cells;

  constructor(cells: Cells) {
    this.#cells = cells;
  }

  text(name: string): string {
    return (this.#cells[name] ?? '').trim();
  }

  figure(name: string, quantity: Quantity, unit: string): number | undefined {
    const text = this.text(name);
    if (text === '') return undefined;
    const read = parseQuantity(text, quantity, name, unit);
    if (read.ok) return read.quantity.base;
    this.wrongs.push({ field: name, given: text, allowed: `must be a figure in ${unit}, or with its unit` });
    return undefined;
  }

  number(name: string): number | undefined {
    const text = this.text(name);
    if (text === '') return undefined;
    const value = Number(text.replace(',', '.'));
    if (Number.isFinite(value)) return value;
    this.wrongs.push({ field: name, given: text, allowed: 'must be a number' });
    return undefined;
  }

  oneOf<T extends string>(name: string, known: readonly T[]): T | undefined {
    const text = this.text(name);
    if (text === '') return undefined;
    const plain = (word: string): string => word.toLowerCase().replaceAll(/[\s_-]+/gu, ' ');
    const found = known.find((one) => plain(one) === plain(text));
    if (!found) this.wrongs.push({ field: name, given: text, allowed: `must be one of: ${known.join(', ').replaceAll('-', ' ')}` });
    return found;
  }
}

/** Somebody as a row says it: whoever is here already has a password, and is given another one on their own page only. */
export function personFrom(cells: Cells, before: Pick<NewPersonBody, 'name' | 'role'> | undefined): Said<NewPersonBody> {
  const read = new Reader(cells);
  const role = read.oneOf('role', ROLES) ?? before?.role ?? 'mechanic';
  const password = read.text('password');
  if (before && password !== '')
    read.wrongs.push({ field: 'password', allowed: 'is for somebody new: of whoever is here it is changed among the people' });
  return {
    body: { login: read.text('login').toLowerCase(), name: read.text('name') || (before?.name ?? ''), role, password },
    wrongs: read.wrongs,
  };
}

const FROM_TO = /^(\d{1,2}:\d{2})\s*(?:-|–|to|until)\s*(\d{1,2}:\d{2})$/u;

/** A bench as a row says it; `logins` are those who may use it, none where the row does not say. */
export function benchFrom(cells: Cells, before: BenchBody | undefined): Said<BenchBody> & { readonly logins: readonly string[] } {
  const read = new Reader(cells);
  const open = read.text('open');
  const [, from, to] = FROM_TO.exec(open) ?? [];
  if (open !== '' && from === undefined)
    read.wrongs.push({ field: 'open', given: open, allowed: 'must be two times of day, such as 07:00-16:30' });
  const said = Array.from({ length: 7 }, (_, at) =>
    at < 5 ? { from: from?.padStart(5, '0') ?? '', to: to?.padStart(5, '0') ?? '' } : { from: '', to: '' },
  );
  const out = read.text('out') || before?.out;
  const body: BenchBody = {
    name: read.text('name'),
    kind: read.oneOf('kind', BENCH_KINDS) ?? before?.kind ?? 'bench',
    who: before?.who ?? [],
    week: from === undefined ? (before?.week ?? []) : said,
    closed: before?.closed ?? [],
    ...(out === undefined ? {} : { out }),
  };
  const logins = read
    .text('who')
    .toLowerCase()
    .split(/[\s,;]+/u);
  return { body, wrongs: read.wrongs, logins: logins.filter((login) => login !== '') };
}

const LONGEST_NAME = 120;
const LONGEST_SERIAL = 60;

/** A customer as a row says it, and the machine of theirs that stands in it; several machines are several rows. */
export function customerFrom(
  cells: Cells,
  before: (Pick<CustomerBody, 'version' | 'name'> & Readonly<Record<'phone' | 'email' | 'address', string | null>>) | undefined,
): Said<CustomerBody> & { readonly machine: { readonly name: string; readonly serial: string } | undefined } {
  const read = new Reader(cells);
  const words = (name: 'phone' | 'email' | 'address'): object => {
    const text = read.text(name) || before?.[name];
    return text ? { [name]: text } : {};
  };
  const [name, serial] = [read.text('machine'), read.text('serial')];
  if (name.length > LONGEST_NAME)
    read.wrongs.push({ field: 'machine', given: name, allowed: `is too long; at most ${LONGEST_NAME} letters are kept` });
  if (serial.length > LONGEST_SERIAL)
    read.wrongs.push({ field: 'serial', given: serial, allowed: `is too long; at most ${LONGEST_SERIAL} letters are kept` });
  if (name === '' && serial !== '') read.wrongs.push({ field: 'machine', allowed: 'is missing: what is it the serial of?' });
  const body: CustomerBody = {
    version: before?.version ?? 1,
    name: read.text('name') || (before?.name ?? ''),
    ...words('phone'),
    ...words('email'),
    ...words('address'),
  };
  return { body, wrongs: read.wrongs, machine: name === '' ? undefined : { name, serial } };
}

/** A tool as a row says it. */
export function toolFrom(cells: Cells, before: ToolBody | undefined): Said<ToolBody> {
  const read = new Reader(cells);
  const kind = read.oneOf<CribKind>('kind', CRIB_KINDS) ?? before?.kind ?? 'rule';
  const [quantity] = before?.kind === kind ? [before.quantity] : TOOL_READS[kind];
  const unit = read.text('unit') || before?.unit || (quantity === 'length' ? 'mm' : quantity === 'torque' ? 'N·m' : '');
  const figure = (name: string, otherwise: number | undefined): number => read.figure(name, quantity, unit) ?? otherwise ?? Number.NaN;
  const length = read.figure('length', 'length', 'mm') ?? before?.length;
  const due = read.text('due') || before?.due;
  const everyDays = read.number('everyDays') ?? before?.everyDays;
  const plain = isPushing(kind) ? 0 : undefined;
  const body: ToolBody = {
    tag: read.text('tag'),
    name: read.text('name') || (before?.name ?? ''),
    kind,
    quantity,
    unit,
    low: figure('low', before?.low ?? 0),
    high: figure('high', before?.high ?? 0),
    resolution: figure('resolution', before?.resolution ?? plain),
    within: figure('within', before?.within ?? plain),
    ...(length === undefined ? {} : { length }),
    ...(due === undefined ? {} : { due }),
    ...(everyDays === undefined ? {} : { everyDays }),
  };
  return { body, wrongs: read.wrongs };
}

/** A line of a supplier's catalogue as a row says it. */
export function priceFrom(cells: Cells): Said<OfferBody> & { readonly supplier: string } {
  const read = new Reader(cells);
  const price = read.number('price');
  if (price === undefined && read.wrongs.length === 0) read.wrongs.push({ field: 'price', allowed: 'is missing: what does one cost?' });
  if (price !== undefined && price < 0) read.wrongs.push({ field: 'price', given: read.text('price'), allowed: 'must not be under 0' });
  if (read.text('number') === '') read.wrongs.push({ field: 'number', allowed: 'is missing: which number?' });
  const body = { number: read.text('number'), name: read.text('name'), priceMinor: Math.round((price ?? 0) * 100) };
  return { supplier: read.text('supplier'), body, wrongs: read.wrongs };
}

/** A line of the stores as a row says it, and how many lie there where it says that. */
export function stockFrom(cells: Cells, before: StockItemBody | undefined): Said<StockItemBody> & { readonly onHand: number | undefined } {
  const read = new Reader(cells);
  const material = read.oneOf('material', MATERIAL_IDS) ?? before?.material;
  const shore = read.number('shore') ?? before?.shore;
  const price = read.number('price');
  const onHand = read.number('onHand');
  if (onHand !== undefined && onHand < 0) read.wrongs.push({ field: 'onHand', given: read.text('onHand'), allowed: 'must not be under 0' });
  const words = (name: 'size' | 'designation' | 'location'): object => {
    const text = read.text(name) || before?.[name];
    return text ? { [name]: text } : {};
  };
  const body: StockItemBody = {
    number: read.text('number'),
    name: read.text('name') || (before?.name ?? ''),
    kind: read.oneOf('kind', STOCK_KINDS) ?? before?.kind ?? 'part',
    unit: read.oneOf('unit', STOCK_UNITS) ?? before?.unit ?? 'piece',
    ...words('size'),
    ...words('designation'),
    ...words('location'),
    minimum: read.number('minimum') ?? before?.minimum ?? 0,
    priceMinor: price === undefined ? (before?.priceMinor ?? 0) : Math.round(price * 100),
    ...(material === undefined ? {} : { material }),
    ...(shore === undefined ? {} : { shore }),
  };
  return { body, wrongs: read.wrongs, onHand };
}
