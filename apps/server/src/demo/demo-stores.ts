import { orderNumber } from '@jubb/book';
import { seeded, shelfLife } from '@jubb/core';
import { daysOn, yearsOn, type Part, type SheetFile } from '@jubb/sheet';
import type { MoveBody, StockItemBody } from '@jubb/wire';
import { createHash } from 'node:crypto';
import type { EntityManager, QueryDeepPartialEntity } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { StockItem, Supplier, SupplierItem } from '../database/entities/index.js';
import { lineFrom } from '../stores/stores.service.js';

export const DEMO_SUPPLIERS = ['Tarnholt Trade Parts', 'Velmark Bearing and Seal'] as const;

const DAY = 24 * 3600 * 1000;

/** What a part costs, by what it is called: plausible, no more. */
const PRICES: readonly (readonly [RegExp, low: number, high: number])[] = [
  [/balls?\b|clip|pin|screw|nut|washer|rivet|split/iu, 40, 260],
  [/seal|ring|gasket|boot|wiper|felt|cap/iu, 280, 1900],
  [/bearing|race|needle/iu, 1800, 7800],
  [/rectifier|regulator|brush/iu, 2400, 8900],
  [/shaft|gear|housing|case|rotor|stator|cylinder|wheel|ram|tube/iu, 9500, 42_000],
];

const KINDS: readonly (readonly [RegExp, StockItemBody['kind']])[] = [
  [/o-ring/iu, 'o-ring'],
  // Of no thickness of its own: measured shims have lines by theirs.
  [/shim/iu, 'part'],
  [/bearing|race|needle/iu, 'bearing'],
  [/seal|gasket|boot|wiper|ring/iu, 'seal'],
  [/screw|nut|bolt|washer|clip|pin/iu, 'fastener'],
];

interface Catalogued {
  readonly number: string;
  readonly name: string;
  readonly priceMinor: number;
  readonly kind: StockItemBody['kind'];
  readonly designation?: string;
  readonly supersededBy?: string;
}

/** What lay on a line when it was first counted. */
export interface FirstCount {
  readonly item: string;
  readonly minimum: number;
  readonly move: MoveBody;
}

/** A line of the stores, and what is counted in on it first; nothing where it is empty. */
export interface PlannedShelf {
  readonly body: StockItemBody;
  readonly count?: Pick<MoveBody, 'quantity' | 'batch' | 'expires'>;
}

/** Shelves, catalogues and suppliers for the parts of the demo's sheets, and what is to be counted in first. */
export async function loadDemoStores(manager: EntityManager, sheets: readonly SheetFile[]): Promise<readonly FirstCount[]> {
  await manager.insert(
    Supplier,
    DEMO_SUPPLIERS.map((name) => ({ name })),
  );
  await manager.insert(SupplierItem, catalogue(sheets).flatMap(offers));
  const lines = planShelves(sheets).map((shelf) => ({ ...shelf, id: uuid() }));
  await manager.insert(
    StockItem,
    lines.map(({ id, body }) => ({ id, ...lineFrom(body) })),
  );
  const takenAt = new Date(Date.now() - 30 * DAY).toISOString();
  return lines.flatMap(({ id, body: { minimum }, count }) =>
    count ? [{ item: id, minimum, move: { id: uuid(), kind: 'receive', words: 'first count', takenAt, ...count } }] : [],
  );
}

/** Of what suppliers have: the second one has bearings and seals only, a little dearer or cheaper, and quicker. */
function offers({ number, name, kind, priceMinor, supersededBy }: Catalogued): readonly QueryDeepPartialEntity<SupplierItem>[] {
  const random = chanceOf(number, 'offers');
  return DEMO_SUPPLIERS.flatMap((supplier, index) => {
    const has = index === 0 || kind === 'bearing' || kind === 'seal' || kind === 'o-ring';
    if (!has) return [];
    const price = Math.max(1, Math.round(priceMinor * (index === 0 ? 1 : 0.85 + 0.3 * random())));
    return {
      supplier,
      number,
      name,
      priceMinor: price,
      breaks: price < 2000 ? [{ from: 10, priceMinor: Math.max(1, Math.round(price * 0.88)) }] : [],
      leadDays: index === 0 ? 2 + Math.floor(random() * 5) : 1 + Math.floor(random() * 3),
      leadSpread: 1 + Math.floor(random() * 4),
      available: random() > 0.04,
      supersededBy: supersededBy ?? null,
    };
  });
}

/** What lies on the shelves, by number: the same whatever else the sheets ask for. */
export function planShelves(sheets: readonly SheetFile[]): readonly PlannedShelf[] {
  return [...catalogue(sheets).flatMap(shelfOf), ...rings(), ...shims(), ...fluidsOf(sheets)];
}

function shelfOf({ number, name, kind, priceMinor, designation, supersededBy }: Catalogued): readonly PlannedShelf[] {
  const random = chanceOf(number, 'shelf');
  if (supersededBy !== undefined || random() > 0.45) return [];
  const few = priceMinor > 5000 ? 1 : 4;
  const from = (count: number): number => Math.floor(random() * count);
  const body = {
    number,
    name,
    kind,
    unit: 'piece',
    priceMinor: Math.round(priceMinor * 1.35),
    minimum: few,
    location: `${'ABCD'[from(4)]}${1 + from(6)}-${1 + from(9)}`,
    ...(designation === undefined ? {} : { designation }),
  } as const;
  return [random() < 0.12 ? { body } : { body, count: { quantity: few + from(3 * few) } }];
}

/** Sizes in the stores with their material and years since the cure: one box is past its years, and one nearly. */
const RINGS = [
  ['1.5', 8, 'NBR', 1],
  ['2', 9, 'NBR', 2],
  ['2', 10, 'FKM', 3],
  ['2.5', 10, 'NBR', 6.8],
  ['2.5', 16, 'EPDM', 2],
  ['2.65', 20, 'NBR', 1],
  ['3', 24, 'NBR', 8],
  ['3', 31.5, 'FKM', 4],
  ['3.5', 45, 'NBR', 1],
] as const;

function rings(): readonly PlannedShelf[] {
  return RINGS.map(([size, inside, material, age]) => {
    const cured = daysOn('UTC', Date.now(), -Math.round(age * 365));
    return {
      body: {
        number: `OR-${inside}x${size}`,
        name: `O-ring ${inside} x ${size}`,
        kind: 'o-ring',
        unit: 'piece',
        size: `${inside} x ${size}`,
        material,
        shore: 70,
        priceMinor: 90,
        minimum: 10,
        location: 'R1-1',
      },
      count: { quantity: 25, batch: `cured ${cured}`, expires: yearsOn(cured, shelfLife(material)!.first) },
    };
  });
}

const SHIMS = ['0.05', '0.10', '0.15', '0.20', '0.30', '0.50', '1.00'] as const;
const NONE_LEFT = '0.15';

function shims(): readonly PlannedShelf[] {
  return SHIMS.map((size) => ({
    body: {
      number: `SH-40-${size}`,
      name: `Shim 40 x 30 x ${size}`,
      kind: 'shim',
      unit: 'piece',
      size,
      priceMinor: 120,
      minimum: 4,
      location: 'R2-1',
    },
    ...(size === NONE_LEFT ? {} : { count: { quantity: 12 } }),
  }));
}

/** The third of them is past its day. */
const PAST = 3;

function fluidsOf(sheets: readonly SheetFile[]): readonly PlannedShelf[] {
  const fluids = new Map(sheets.flatMap(({ fluids: all }) => all.map((fluid) => [fluid.grade, fluid] as const)));
  return [...fluids].map(([grade, { name, amount }], at) => ({
    body: {
      number: `FL-${String(at + 1).padStart(2, '0')}`,
      name,
      kind: 'fluid',
      unit: /\d\s*k?g$/u.test(amount?.figure ?? '') ? 'kg' : 'L',
      designation: grade.slice(0, 80),
      priceMinor: 1400,
      minimum: 2,
      location: 'F1',
    },
    count: { quantity: 8, batch: `B${2601 + at}`, expires: daysOn('UTC', Date.now(), at + 1 === PAST ? -20 : 400) },
  }));
}

/** Chance of a number of its own, so that one more part on a sheet moves nothing on the others. */
function chanceOf(number: string, what: string): () => number {
  return seeded(createHash('sha256').update(`${what} ${number}`).digest().readUInt32BE());
}

/** All numbers of the sheets' parts and kits, each once. */
function catalogue(sheets: readonly SheetFile[]): readonly Catalogued[] {
  const items = new Map<string, Catalogued>();
  for (const { parts, kits = [] } of sheets) {
    for (const part of parts) {
      const number = orderNumber(part);
      if (number === null || items.has(number)) continue;
      const [low, high] = rangeOf(part.name);
      items.set(number, {
        number,
        name: part.name,
        kind: kindOf(part),
        priceMinor: Math.round(low + chanceOf(number, 'price')() ** 2 * (high - low)),
        ...(part.designation ? { designation: part.designation } : {}),
      });
      for (const { number: old } of part.superseded ?? [])
        if (!items.has(old)) items.set(old, { number: old, name: part.name, kind: kindOf(part), priceMinor: low, supersededBy: number });
    }
    for (const kit of kits) {
      if (!kit.number || items.has(kit.number)) continue;
      const brought = parts.filter(({ ref }) => kit.parts.includes(ref));
      const sum = brought.reduce((total, part) => total + (items.get(orderNumber(part) ?? '')?.priceMinor ?? 0) * part.quantity, 0);
      items.set(kit.number, { number: kit.number, name: kit.name, kind: 'part', priceMinor: Math.max(100, Math.round(sum * 0.78)) });
    }
  }
  return [...items.values()];
}

function rangeOf(name: string): readonly [number, number] {
  const found = PRICES.find(([pattern]) => pattern.test(name));
  return found ? [found[1], found[2]] : [600, 4800];
}

function kindOf({ name }: Part): StockItemBody['kind'] {
  return KINDS.find(([pattern]) => pattern.test(name))?.[1] ?? 'part';
}
