/**
 * The units a bench meets, with their factors to the base unit of each quantity.
 *
 * Source: NIST SP 811 (2008), appendix B. The factors are written as products of the exact
 * definitions (inch 25.4 mm, pound 0.453 592 37 kg, standard gravity 9.806 65 m/s²), so that they
 * agree with the tables to every printed digit.
 */

const INCH_MM = 25.4;
const FOOT_M = 0.3048;
const POUND_KG = 0.45359237;
const GRAVITY = 9.80665;
const POUND_FORCE_N = POUND_KG * GRAVITY;
const US_GALLON_L = 3.785411784;
const IMPERIAL_GALLON_L = 4.54609;

/** What an open circuit is kept as, Ω: more than any meter of a bench shows. It is written "OL". */
export const OPEN_OHM = 1e9;

export const QUANTITIES = [
  'length',
  'pitch',
  'torque',
  'force',
  'pressure',
  'temperature',
  'temperature difference',
  'angle',
  'speed',
  'mass',
  'unbalance',
  'resistance',
  'voltage',
  'current',
  'volume',
  'flow',
  'time',
  'stiffness',
  'money',
  'ratio',
  'count',
] as const;

export type Quantity = (typeof QUANTITIES)[number];

export interface Unit {
  readonly symbol: string;
  readonly quantity: Quantity;
  /** Base value = (typed + offset) · factor; for a reciprocal unit base value = factor / typed. */
  readonly factor: number;
  readonly offset?: number;
  readonly reciprocal?: boolean;
  /** Other ways people type it; the matching ignores blanks, dots, hyphens and asterisks. */
  readonly aliases?: readonly string[];
  /** Digits after the point that a bench shows. */
  readonly decimals: number;
}

/** The first unit of each quantity is its base unit. */
const TABLE: Readonly<Record<Quantity, readonly Omit<Unit, 'quantity'>[]>> = {
  length: [
    { symbol: 'mm', factor: 1, decimals: 3, aliases: ['millimetre', 'millimeter'] },
    { symbol: 'µm', factor: 1e-3, decimals: 1, aliases: ['μm', 'um', 'micron'] },
    { symbol: 'cm', factor: 10, decimals: 3 },
    { symbol: 'm', factor: 1000, decimals: 4, aliases: ['metre', 'meter'] },
    { symbol: 'in', factor: INCH_MM, decimals: 4, aliases: ['inch', 'inches', '"', '″'] },
    { symbol: 'hundredths', factor: 0.01, decimals: 1, aliases: ['hundredth'] },
    { symbol: 'thou', factor: INCH_MM / 1000, decimals: 1 },
    { symbol: 'ft', factor: FOOT_M * 1000, decimals: 3, aliases: ['foot', 'feet'] },
  ],
  pitch: [
    { symbol: 'mm', factor: 1, decimals: 3 },
    { symbol: 'tpi', factor: INCH_MM, reciprocal: true, decimals: 1, aliases: ['/in', 'threads per inch', 'threads/inch'] },
    { symbol: 'in', factor: INCH_MM, decimals: 4 },
  ],
  torque: [
    { symbol: 'N·m', factor: 1, decimals: 1, aliases: ['Nm', 'newton metre'] },
    { symbol: 'N·cm', factor: 0.01, decimals: 0 },
    {
      symbol: 'lbf·ft',
      factor: POUND_FORCE_N * FOOT_M,
      decimals: 1,
      aliases: ['ft·lbf', 'lb·ft', 'ft·lb', 'ft·lbs', 'lbs·ft', 'foot-pound', 'foot-pounds'],
    },
    {
      symbol: 'lbf·in',
      factor: (POUND_FORCE_N * INCH_MM) / 1000,
      decimals: 0,
      aliases: ['in·lbf', 'lb·in', 'in·lb', 'in·lbs', 'inch-pound', 'inch-pounds'],
    },
    { symbol: 'kgf·m', factor: GRAVITY, decimals: 2, aliases: ['kg·m', 'kp·m', 'm·kg'] },
    { symbol: 'kgf·cm', factor: GRAVITY / 100, decimals: 1, aliases: ['kg·cm', 'kp·cm'] },
    { symbol: 'ozf·in', factor: (POUND_FORCE_N / 16) * (INCH_MM / 1000), decimals: 1, aliases: ['oz·in', 'in·oz'] },
  ],
  force: [
    { symbol: 'N', factor: 1, decimals: 1, aliases: ['newton'] },
    { symbol: 'kN', factor: 1000, decimals: 2 },
    { symbol: 'lbf', factor: POUND_FORCE_N, decimals: 1 },
    { symbol: 'kgf', factor: GRAVITY, decimals: 2, aliases: ['kp'] },
    { symbol: 'ozf', factor: POUND_FORCE_N / 16, decimals: 1 },
  ],
  pressure: [
    { symbol: 'MPa', factor: 1, decimals: 3, aliases: ['N/mm²', 'N/mm2'] },
    { symbol: 'kPa', factor: 1e-3, decimals: 1 },
    { symbol: 'Pa', factor: 1e-6, decimals: 0 },
    { symbol: 'bar', factor: 0.1, decimals: 2 },
    { symbol: 'mbar', factor: 1e-4, decimals: 0, aliases: ['hPa'] },
    { symbol: 'psi', factor: POUND_FORCE_N / (INCH_MM * INCH_MM), decimals: 1, aliases: ['lbf/in²', 'lbf/in2'] },
    { symbol: 'kgf/cm²', factor: GRAVITY / 100, decimals: 2, aliases: ['kgf/cm2', 'at'] },
    { symbol: 'atm', factor: 0.101325, decimals: 3 },
    { symbol: 'mmHg', factor: 133.322387415e-6, decimals: 0 },
    { symbol: 'inHg', factor: 133.322387415e-6 * INCH_MM, decimals: 2 },
  ],
  temperature: [
    { symbol: '°C', factor: 1, decimals: 1, aliases: ['degC', 'C', 'celsius'] },
    { symbol: '°F', factor: 5 / 9, offset: -32, decimals: 1, aliases: ['degF', 'F', 'fahrenheit'] },
    { symbol: 'K', factor: 1, offset: -273.15, decimals: 2, aliases: ['kelvin'] },
  ],
  // A rise, a spread, an uncertainty: 9 °F more are 5 K more.
  'temperature difference': [
    { symbol: 'K', factor: 1, decimals: 2, aliases: ['kelvin', '°C', 'degC', 'C'] },
    { symbol: '°F', factor: 5 / 9, decimals: 1, aliases: ['degF', 'F'] },
  ],
  angle: [
    { symbol: '°', factor: 1, decimals: 1, aliases: ['deg', 'degree', 'degrees', 'º'] },
    { symbol: 'turn', factor: 360, decimals: 3, aliases: ['turns', 'rev'] },
    { symbol: 'flat', factor: 60, decimals: 1, aliases: ['flats'] },
    { symbol: 'rad', factor: 180 / Math.PI, decimals: 4 },
  ],
  speed: [
    { symbol: 'rpm', factor: 1, decimals: 0, aliases: ['rev/min', '1/min', 'r/min'] },
    { symbol: 'rad/s', factor: 30 / Math.PI, decimals: 2 },
    { symbol: 'Hz', factor: 60, decimals: 2, aliases: ['rev/s', '1/s'] },
  ],
  mass: [
    { symbol: 'kg', factor: 1, decimals: 2 },
    { symbol: 'g', factor: 1e-3, decimals: 0, aliases: ['gram', 'grams'] },
    { symbol: 't', factor: 1000, decimals: 3, aliases: ['tonne'] },
    { symbol: 'lb', factor: POUND_KG, decimals: 2, aliases: ['lbs', 'pound', 'pounds'] },
    { symbol: 'oz', factor: POUND_KG / 16, decimals: 1 },
  ],
  unbalance: [
    { symbol: 'g·mm', factor: 1, decimals: 1 },
    { symbol: 'g·cm', factor: 10, decimals: 2 },
    { symbol: 'oz·in', factor: (POUND_KG / 16) * 1000 * INCH_MM, decimals: 3 },
  ],
  resistance: [
    { symbol: 'Ω', factor: 1, decimals: 2, aliases: ['Ω', 'ohm', 'ohms'] },
    { symbol: 'mΩ', factor: 1e-3, decimals: 1, aliases: ['mΩ', 'mohm'] },
    { symbol: 'kΩ', factor: 1e3, decimals: 2, aliases: ['kΩ', 'kohm'] },
    { symbol: 'MΩ', factor: 1e6, decimals: 2, aliases: ['MΩ', 'Mohm'] },
  ],
  voltage: [
    { symbol: 'V', factor: 1, decimals: 2, aliases: ['volt', 'volts'] },
    { symbol: 'mV', factor: 1e-3, decimals: 0 },
    { symbol: 'kV', factor: 1e3, decimals: 2 },
  ],
  current: [
    { symbol: 'A', factor: 1, decimals: 2, aliases: ['amp', 'amps', 'ampere'] },
    { symbol: 'mA', factor: 1e-3, decimals: 0 },
  ],
  volume: [
    { symbol: 'L', factor: 1, decimals: 2, aliases: ['l', 'litre', 'liter', 'dm³', 'dm3'] },
    { symbol: 'mL', factor: 1e-3, decimals: 0, aliases: ['ml', 'cm³', 'cm3', 'cc'] },
    { symbol: 'm³', factor: 1000, decimals: 3, aliases: ['m3'] },
    { symbol: 'in³', factor: INCH_MM ** 3 * 1e-6, decimals: 1, aliases: ['in3', 'cu in'] },
    { symbol: 'US gal', factor: US_GALLON_L, decimals: 2 },
    { symbol: 'US qt', factor: US_GALLON_L / 4, decimals: 2, aliases: ['US quart', 'US quarts'] },
    { symbol: 'US pt', factor: US_GALLON_L / 8, decimals: 2, aliases: ['US pint', 'US pints'] },
    { symbol: 'US fl oz', factor: US_GALLON_L / 128, decimals: 1 },
    { symbol: 'imp gal', factor: IMPERIAL_GALLON_L, decimals: 2 },
    { symbol: 'imp qt', factor: IMPERIAL_GALLON_L / 4, decimals: 2, aliases: ['imp quart', 'imp quarts'] },
    { symbol: 'imp pt', factor: IMPERIAL_GALLON_L / 8, decimals: 2, aliases: ['imp pint', 'imp pints'] },
  ],
  flow: [
    { symbol: 'L/min', factor: 1, decimals: 1, aliases: ['l/min', 'lpm'] },
    { symbol: 'L/s', factor: 60, decimals: 2 },
    { symbol: 'm³/h', factor: 1000 / 60, decimals: 2, aliases: ['m3/h'] },
    { symbol: 'ft³/min', factor: FOOT_M ** 3 * 1000, decimals: 2, aliases: ['ft3/min', 'cfm'] },
    { symbol: 'US gal/min', factor: US_GALLON_L, decimals: 2, aliases: ['US gpm'] },
  ],
  time: [
    { symbol: 's', factor: 1, decimals: 0, aliases: ['sec', 'second', 'seconds'] },
    { symbol: 'ms', factor: 1e-3, decimals: 0 },
    { symbol: 'min', factor: 60, decimals: 1, aliases: ['minute', 'minutes'] },
    { symbol: 'h', factor: 3600, decimals: 2, aliases: ['hr', 'hour', 'hours'] },
    { symbol: 'd', factor: 86400, decimals: 2, aliases: ['day', 'days'] },
  ],
  stiffness: [
    { symbol: 'kN/mm', factor: 1, decimals: 2, aliases: ['N/µm', 'N/um'] },
    { symbol: 'N/mm', factor: 1e-3, decimals: 1 },
    { symbol: 'lbf/in', factor: POUND_FORCE_N / INCH_MM / 1000, decimals: 1, aliases: ['lb/in'] },
  ],
  // In the shop's own currency, of which a shop has one.
  money: [{ symbol: '', factor: 1, decimals: 2 }],
  ratio: [
    { symbol: '', factor: 1, decimals: 3 },
    { symbol: '%', factor: 0.01, decimals: 1, aliases: ['percent'] },
  ],
  count: [{ symbol: '', factor: 1, decimals: 0 }],
};

const BY_QUANTITY = new Map<Quantity, readonly Unit[]>(
  QUANTITIES.map((quantity) => [quantity, TABLE[quantity].map((unit) => ({ ...unit, quantity }))]),
);

export function unitsOf(quantity: Quantity): readonly Unit[] {
  return BY_QUANTITY.get(quantity) ?? [];
}

export function baseUnit(quantity: Quantity): Unit {
  const [first] = unitsOf(quantity);
  if (!first) throw new Error(`quantity without a base unit: ${quantity}`);
  return first;
}

/** Blanks, dots, hyphens and asterisks between the parts of a unit all mean "times". */
export function plain(text: string): string {
  return text.trim().replace(/[\s·⋅∙*×.-]+/gu, '');
}

const EXACT = new Map<string, Unit[]>();
const FOLDED = new Map<string, Unit[]>();
for (const unit of [...BY_QUANTITY.values()].flat()) {
  for (const name of [unit.symbol, ...(unit.aliases ?? [])]) {
    if (name === '') continue;
    push(EXACT, plain(name), unit);
    push(FOLDED, plain(name).toLowerCase(), unit);
  }
}

function push(map: Map<string, Unit[]>, key: string, unit: Unit): void {
  const list = map.get(key) ?? [];
  if (!list.includes(unit)) map.set(key, [...list, unit]);
}

/**
 * All units that a text may mean. Case matters where it tells units apart (mΩ, MΩ) and is
 * forgiven where it does not (NM, Psi).
 */
export function findUnits(text: string): readonly Unit[] {
  const key = plain(text);
  const exact = EXACT.get(key);
  if (exact) return exact;
  const folded = FOLDED.get(key.toLowerCase()) ?? [];
  const perQuantity = new Set(folded.map((unit) => unit.quantity));
  return perQuantity.size === folded.length ? folded : [];
}

export function toBase(typed: number, unit: Unit): number {
  if (unit.reciprocal) return unit.factor / typed;
  return (typed + (unit.offset ?? 0)) * unit.factor;
}

export function fromBase(base: number, unit: Unit): number {
  if (unit.reciprocal) return unit.factor / base;
  return base / unit.factor - (unit.offset ?? 0);
}
