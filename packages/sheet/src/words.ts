/** The closed lists that cross the wire. */

/** The machine of units that came without one. */
export const OVER_THE_COUNTER = 'Over the counter';

/** "Baggage tractor 3, TH6-20931"; the name alone where nobody has a number. */
export function withSerial({ name, serial }: { readonly name: string; readonly serial: string }): string {
  return serial === '' ? name : `${name}, ${serial}`;
}

export const ROLES = ['mechanic', 'foreman', 'counter', 'apprentice'] as const;
export type Role = (typeof ROLES)[number];

export const STAGES = ['book-in', 'strip', 'measure', 'decide', 'build', 'prove', 'hand-over'] as const;
export type Stage = (typeof STAGES)[number];

export const STAGE_NAMES: Readonly<Record<Stage, string>> = {
  'book-in': 'Book in',
  strip: 'Strip',
  measure: 'Measure',
  decide: 'Decide',
  build: 'Build',
  prove: 'Prove',
  'hand-over': 'Hand over',
};

/** Lists of a sheet whose lines hold figures with where they come from. */
export const VALUE_LISTS = ['joints', 'settings', 'seals', 'limits', 'fluids'] as const;
export type ValueList = (typeof VALUE_LISTS)[number];

export const TRUSTS = ['published', 'calculated', 'shop', 'unverified'] as const;
export type Trust = (typeof TRUSTS)[number];

export const TOOL_KINDS = [
  'torque-wrench',
  'crowfoot',
  'dial-indicator',
  'micrometer',
  'calliper',
  'depth-gauge',
  'scale',
  'bore-gauge',
  'feeler-gauge',
  'beam-wrench',
  'spring-balance',
  'pressure-gauge',
  'multimeter',
  'load-stand',
  'balance-stand',
  'protractor',
  'thermometer',
  'stopwatch',
  'rule',
] as const;
export type ToolKind = (typeof TOOL_KINDS)[number];

/** Tools that push, and read nothing: known by their inside, 0 of a disc, their outside and their length. */
export const PUSHING_KINDS = ['driver', 'tube', 'socket'] as const;
export type PushingKind = (typeof PUSHING_KINDS)[number];

/** Whatever lies in a crib under a tag. */
export const CRIB_KINDS = [...TOOL_KINDS, ...PUSHING_KINDS] as const;
export type CribKind = (typeof CRIB_KINDS)[number];

export const HOLD_REASONS = ['parts', 'answer', 'tool', 'cure', 'help'] as const;
export type HoldReason = (typeof HOLD_REASONS)[number];

/** What is not in its final state, by what it is. */
export const OPEN_END_KINDS = ['temporary', 'off', 'started', 'provisional', 'adjuster', 'borrowed'] as const;
export type OpenEndKind = (typeof OPEN_END_KINDS)[number];

/** Where a job is done: the unit came in by itself, or stays in its machine. */
export const JOB_PLACES = ['on the bench', 'in place'] as const;
export type JobPlace = (typeof JOB_PLACES)[number];

/** Where an old part goes. */
export const OLD_FATES = ['hold', 'return', 'scrap'] as const;
export type OldFate = (typeof OLD_FATES)[number];

/** What a finding is, when it is more than a remark. */
export const FINDING_SORTS = ['damage', 'rebuilt before'] as const;
export type FindingSort = (typeof FINDING_SORTS)[number];

/** How something was got out of the way of the unit. */
export const MOVED_HOW = ['off', 'aside', 'loosened'] as const;
export type MovedHow = (typeof MOVED_HOW)[number];

/** What a magnet and a pan show of a fluid that came out. */
export const METALS = ['none', 'fine dust', 'flakes', 'pieces'] as const;
export type Metal = (typeof METALS)[number];

/** Longest talk or clip that is kept, s. */
export const LONGEST_CLIP_S = 20;

export const POLICIES = ['renew', 'inspect', 'reuse'] as const;
export type Policy = (typeof POLICIES)[number];

export const FATES = ['reuse', 'rework', 'renew'] as const;
export type Fate = (typeof FATES)[number];

/** What lies on a shelf. */
export const STOCK_KINDS = ['part', 'seal', 'o-ring', 'shim', 'bearing', 'fastener', 'fluid', 'consumable'] as const;
export type StockKind = (typeof STOCK_KINDS)[number];

export const STOCK_UNITS = ['piece', 'L', 'kg', 'm'] as const;
export type StockUnit = (typeof STOCK_UNITS)[number];

/** What may happen to a stock line: each is kept, and none is taken back but by its opposite. */
export const MOVES = ['receive', 'reserve', 'release', 'issue', 'return', 'count'] as const;
export type Move = (typeof MOVES)[number];

/** What the supplier's stand-in does wrong next. */
export const SUPPLIER_FAULTS = [
  'none',
  'time-out',
  'acknowledged twice',
  'other quantity',
  'sold out',
  'wrong part',
  'part of it',
] as const;
export type SupplierFault = (typeof SUPPLIER_FAULTS)[number];

export const QUOTE_LINE_SORTS = ['part', 'labour', 'other'] as const;
export type QuoteLineSort = (typeof QUOTE_LINE_SORTS)[number];

export const ANSWERS = ['yes', 'no', 'ask'] as const;
export type CustomerAnswer = (typeof ANSWERS)[number];

/** How sure a cause is. */
export const CAUSE_SORTS = ['found', 'suspected', 'unknown'] as const;
export type CauseSort = (typeof CAUSE_SORTS)[number];

/** What a measured part can be of, by how it grows. */
export const PART_METALS = ['steel', 'cast-iron', 'aluminium', 'brass', 'bronze', 'stainless'] as const;
export type PartMetal = (typeof PART_METALS)[number];

/** The kinds of unit a rebuild shop takes in. */
export const FAMILIES = [
  'drive axle with pinion and carrier',
  'semi-floating axle shaft bearing and seal',
  'steered drive axle end',
  'planetary wheel hub',
  'tapered-roller wheel hub with castle nut',
  'unitised hub with slipping-clutch bolt',
  'cup-and-cone loose-ball hub',
  'turbocharger',
  'belt-driven blower nose drive',
  'alternator',
  'starter-generator',
  'gearbox with selective shims',
  'two-speed transfer box',
  'multi-plate clutch',
  'piston air compressor',
  'rotary vane air compressor',
  'axial-piston refrigerant compressor',
  'propeller shaft with centre bearing',
  'hydraulic steering cylinder',
  'brake cylinder',
  'shock absorber and strut',
  'dripless shaft seal with bellows',
  'belt tensioner',
  'PTO gearbox',
] as const;
/** One of these, or a kind of unit that the shop names itself. */
export type Family = string;
