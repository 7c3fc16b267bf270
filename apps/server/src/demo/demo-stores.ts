import { orderNumber } from '@jubb/book';
import { daysOn, yearsOn, type Part, type SheetFile } from '@jubb/sheet';
import type { MoveBody, StockItemBody } from '@jubb/wire';
import { seeded, shelfLife } from '@jubb/core';
import type { DataSource, QueryDeepPartialEntity } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { Supplier, SupplierItem } from '../database/entities/index.js';
import type { StoresService } from '../stores/stores.service.js';

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

/** Shelves, catalogues and suppliers for the parts of the demo's sheets, the same from the same seed, and what is to be counted in first. */
export async function loadDemoStores(
  dataSource: DataSource,
  stores: StoresService,
  sheets: readonly SheetFile[],
): Promise<readonly FirstCount[]> {
  const random = seeded(417);
  const items = catalogue(sheets, random);
  await dataSource.manager.insert(
    Supplier,
    DEMO_SUPPLIERS.map((name) => ({ name })),
  );
  const offered: QueryDeepPartialEntity<SupplierItem>[] = [];
  for (const item of items) {
    for (const [index, supplier] of DEMO_SUPPLIERS.entries()) {
      // The second one has bearings and seals only, a little dearer or cheaper, and quicker.
      const has = index === 0 || item.kind === 'bearing' || item.kind === 'seal' || item.kind === 'o-ring';
      if (!has) continue;
      const price = Math.max(1, Math.round(item.priceMinor * (index === 0 ? 1 : 0.85 + 0.3 * random())));
      offered.push({
        supplier,
        number: item.number,
        name: item.name,
        priceMinor: price,
        breaks: price < 2000 ? [{ from: 10, priceMinor: Math.max(1, Math.round(price * 0.88)) }] : [],
        leadDays: index === 0 ? 2 + Math.floor(random() * 5) : 1 + Math.floor(random() * 3),
        leadSpread: 1 + Math.floor(random() * 4),
        available: random() > 0.04,
        supersededBy: item.supersededBy ?? null,
      });
    }
  }
  await dataSource.manager.insert(SupplierItem, offered);
  const counts: FirstCount[] = [];
  const shelf = async (body: StockItemBody, quantity: number, more: Partial<MoveBody> = {}): Promise<void> => {
    const { id } = await stores.add(body);
    if (quantity === 0) return;
    const takenAt = new Date(Date.now() - 30 * DAY).toISOString();
    counts.push({
      item: id,
      minimum: body.minimum,
      move: { id: uuid(), kind: 'receive', quantity, words: 'first count', takenAt, ...more },
    });
  };
  let place = 0;
  for (const { number, name, kind, priceMinor, designation, supersededBy } of items) {
    if (supersededBy !== undefined || random() > 0.45) continue;
    place += 1;
    const few = priceMinor > 5000 ? 1 : 4;
    await shelf(
      {
        number,
        name,
        kind,
        unit: 'piece',
        priceMinor: Math.round(priceMinor * 1.35),
        minimum: few,
        location: `${'ABCD'[place % 4]}${1 + (Math.floor(place / 4) % 6)}-${1 + (place % 9)}`,
        ...(designation === undefined ? {} : { designation }),
      },
      random() < 0.12 ? 0 : few + Math.floor(random() * 3 * few),
    );
  }
  for (const [size, inside, material, age] of [
    ['1.5', 8, 'NBR', 1],
    ['2', 9, 'NBR', 2],
    ['2', 10, 'FKM', 3],
    ['2.5', 10, 'NBR', 6.8],
    ['2.5', 16, 'EPDM', 2],
    ['2.65', 20, 'NBR', 1],
    ['3', 24, 'NBR', 8],
    ['3', 31.5, 'FKM', 4],
    ['3.5', 45, 'NBR', 1],
  ] as const) {
    const cured = daysOn('UTC', Date.now(), -Math.round(age * 365));
    await shelf(
      {
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
      25,
      // One box is past its years, and one nearly.
      { batch: `cured ${cured}`, expires: yearsOn(cured, shelfLife(material)!.first) },
    );
  }
  for (const thickness of ['0.05', '0.10', '0.15', '0.20', '0.30', '0.50', '1.00'])
    await shelf(
      {
        number: `SH-40-${thickness}`,
        name: `Shim 40 x 30 x ${thickness}`,
        kind: 'shim',
        unit: 'piece',
        size: thickness,
        priceMinor: 120,
        minimum: 4,
        location: 'R2-1',
      },
      thickness === '0.15' ? 0 : 12,
    );
  const fluids = new Map(sheets.flatMap(({ fluids: all }) => all.map((fluid) => [fluid.grade, fluid] as const)));
  let batch = 0;
  for (const [grade, { name, amount }] of fluids) {
    batch += 1;
    await shelf(
      {
        number: `FL-${String(batch).padStart(2, '0')}`,
        name,
        kind: 'fluid',
        unit: /\d\s*k?g$/u.test(amount?.figure ?? '') ? 'kg' : 'L',
        designation: grade.slice(0, 80),
        priceMinor: 1400,
        minimum: 2,
        location: 'F1',
      },
      8,
      { batch: `B${2600 + batch}`, expires: daysOn('UTC', Date.now(), batch === 3 ? -20 : 400) },
    );
  }
  return counts;
}

/** All numbers of the sheets' parts and kits, each once. */
function catalogue(sheets: readonly SheetFile[], random: () => number): readonly Catalogued[] {
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
        priceMinor: Math.round(low + random() ** 2 * (high - low)),
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
