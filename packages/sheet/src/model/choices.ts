import type { Quantity } from '@jubb/core';

/** The closed lists of the sheet file. */

export const LAYOUTS = ['circle', 'two-rows', 'grid', 'free'] as const;
export type Layout = (typeof LAYOUTS)[number];

export const STAGE_KINDS = ['torque', 'angle', 'hand-snug', 'started', 'click', 'turn', 'flush', 'touch', 'flatten'] as const;
export type StageKind = (typeof STAGE_KINDS)[number];

export const FEMALE_MATERIALS = ['steel', 'cast iron', 'aluminium', 'plastic'] as const;

/** What lies between the threads, as the working without a number asks it. */
export const SURFACES = ['dry', 'oiled', 'moly', 'threadlocker'] as const;
export type Surface = (typeof SURFACES)[number];

/** How a fit goes home. */
export const GOES_BY = ['press', 'heat', 'hand'] as const;
export type GoesBy = (typeof GOES_BY)[number];

/** How a fit came apart. */
export const LETS_GO_BY = ['press', 'puller', 'heat', 'cut', 'hand'] as const;
export type LetsGoBy = (typeof LETS_GO_BY)[number];

export const FASTENING_KINDS = ['ring', 'clip', 'clamp', 'pin', 'stake', 'set-screw', 'insulator', 'jacking-thread'] as const;
export type FasteningKind = (typeof FASTENING_KINDS)[number];

export const SETTING_KINDS = ['end-play', 'preload', 'backlash', 'depth', 'air-gap', 'pack-clearance', 'compression'] as const;
export type SettingKind = (typeof SETTING_KINDS)[number];

export const SETTING_METHODS = [
  'castle-nut',
  'locknut',
  'slipping-bolt',
  'cone-and-locknut',
  'shims',
  'selective-ring',
  'crush-sleeve',
  'adjusters',
  'witness',
  'set-screw',
] as const;
export type SettingMethod = (typeof SETTING_METHODS)[number];

/** How a setting is proved that the closed unit hides: before the step that closes it, or by the whole less what else is in it. */
export const PROVED_BY = ['closing', 'whole'] as const;
export type ProvedBy = (typeof PROVED_BY)[number];

/** The ring that the force of a press or a driver goes through. */
export const PRESSED_ON = ['inner ring', 'outer ring', 'both rings', 'the part itself'] as const;
export type PressedOn = (typeof PRESSED_ON)[number];

/** What is warmed to go on, by what it stands; the kinds of the working that says how warm. */
export const WARMED = ['open-bearing', 'sealed-bearing', 'hub', 'soft-hub'] as const;
export type Warmed = (typeof WARMED)[number];

export const SEAL_KINDS = ['lip-seal', 'o-ring', 'face-seal', 'gasket', 'sealant', 'boot', 'piston-seal', 'bellows'] as const;
export type SealKind = (typeof SEAL_KINDS)[number];

/** What is looked at once a seal is in. */
export const SEAL_AFTER = ['spring', 'lip', 'turns'] as const;
export type SealAfter = (typeof SEAL_AFTER)[number];

export const ORIENTATIONS = ['lip-inwards', 'lip-outwards', 'ring-in-groove', 'flat', 'face-to-face', 'cup-to-pressure'] as const;
export type Orientation = (typeof ORIENTATIONS)[number];

export const LOOK_PICTURES = [
  'smooth',
  'stained',
  'track',
  'pit',
  'step',
  'nail',
  'score',
  'blue',
  'dent',
  'brinell',
  'chip',
  'crack',
  'hard-lip',
  'cut',
  'other-colour',
] as const;
export type LookPicture = (typeof LOOK_PICTURES)[number];

/** Directions of the pull that finds the torque at which something moves. */
export const PULLS = ['tighten', 'loosen'] as const;
export type Pull = (typeof PULLS)[number];

/** What of a grid of readings is judged: each by itself, or the largest less the smallest. */
export const GRID_OF = ['each', 'span'] as const;
export type GridOf = (typeof GRID_OF)[number];

export const LIMIT_KINDS = ['size', 'look', 'electrical', 'test'] as const;

export const LIMIT_QUANTITIES = [
  'length',
  'torque',
  'angle',
  'mass',
  'force',
  'pressure',
  'temperature',
  'speed',
  'unbalance',
  'resistance',
  'voltage',
  'current',
  'volume',
  'flow',
  'time',
] as const satisfies readonly Quantity[];
export type LimitQuantity = (typeof LIMIT_QUANTITIES)[number];

export const FILL_RULES = ['amount', 'until it runs out', 'to the mark', 'until it purges'] as const;

export const HAZARDS = [
  'spring',
  'press',
  'heat',
  'lift',
  'pressure',
  'refrigerant',
  'brake',
  'steering',
  'electric',
  'splinters',
  'fumes',
  'machine',
] as const;
export type Hazard = (typeof HAZARDS)[number];

export const DOINGS = ['act', 'clean', 'dress', 'paint', 'check'] as const;
export type Doing = (typeof DOINGS)[number];

/** What a step can record: what it has to name for that, and whether it is done once a job, however many sides that has. */
export const RECORDS = {
  tick: {},
  arrival: { once: true },
  count: { names: 'counts' },
  reading: { names: 'limit' },
  look: { names: 'limit' },
  decide: { once: true },
  reconcile: { once: true },
  fluid: { names: 'fluid' },
  seal: { names: 'seal' },
  setting: { names: 'setting' },
  pattern: { names: 'setting' },
  fit: { names: 'fit' },
  torque: { names: 'joint' },
  proof: { names: 'setting' },
  sign: { once: true },
  'hand-over': { once: true },
} as const satisfies Readonly<Record<string, { readonly names?: string; readonly once?: true }>>;

export type RecordKind = keyof typeof RECORDS;
export const RECORD_KINDS = Object.keys(RECORDS) as readonly RecordKind[];

/** The field of its record that a step cannot do without. */
export function namedBy(kind: RecordKind): Named | undefined {
  const record = RECORDS[kind];
  return 'names' in record ? record.names : undefined;
}

type Named = Extract<(typeof RECORDS)[RecordKind], { readonly names: string }>['names'];

export function isOnce(kind: RecordKind): boolean {
  return 'once' in RECORDS[kind];
}

/** Lists of a sheet whose lines a variant or a way may change. */
export const RESHAPED = ['several', 'parts', 'joints', 'fastenings', 'settings', 'fits', 'seals', 'limits', 'fluids', 'steps'] as const;
export type ReshapedList = (typeof RESHAPED)[number];

/** Who looks at a step before the work goes on. */
export const HOLD_BY = ['foreman', 'second person', 'certified person', 'customer'] as const;
export type HoldBy = (typeof HOLD_BY)[number];

/** What thins a coat: water; white spirit (alkyd paints); xylene (insulating varnish); nitro or two-pack thinner. */
export const COATS = ['water', 'white spirit', 'xylene', 'nitro or two-pack thinner'] as const;
export type CoatThinned = (typeof COATS)[number];

/** What something must be by the time that a step begins. */
export const READY = ['warm', 'cold', 'soaked', 'skinned', 'dry', 'ready'] as const;
export type Ready = (typeof READY)[number];

/** Places and machines of a shop that a step can need. */
export const BENCH_KINDS = ['bench', 'press', 'lift', 'oven', 'test stand'] as const;
export type BenchKind = (typeof BENCH_KINDS)[number];
/** Where a step is done: at one of them, or in the machine that the unit belongs to. */
export const STEP_BENCHES = [...BENCH_KINDS, 'in place'] as const;
export type StepBench = (typeof STEP_BENCHES)[number];
