import { BENCH_KINDS, daysOn, find, type BenchKind, type GoesBy, type SheetFile, type Step, type Way } from '@jubb/sheet';
import { closedWhy, nextOpenDay, openOn, type ShopHours } from './hours.js';

/** A bench, or a machine of the shop that a step needs: who may use it, when, and what stands there now. */
export interface Bench {
  readonly id: string;
  /** As it is called in the shop: "20 t press". */
  readonly name: string;
  readonly kind: BenchKind;
  /** When it can be used; nothing where that is whenever the shop is open. */
  readonly hours: ShopHours | null;
  /** Who may use it; nobody named: everybody. */
  readonly who: readonly { readonly id: string; readonly name: string }[];
  /** Why it is out of use; nothing where it is not. */
  readonly out: string | null;
  readonly version: number;
  /** Open jobs whose unit stands there, the one that came first in front. */
  readonly jobs: readonly { readonly id: string; readonly number: number; readonly unit: string }[];
}

/** What a fit goes home by → the machine that it takes; by hand it takes none. */
const BY: Readonly<Record<GoesBy, BenchKind | undefined>> = { press: 'press', heat: 'oven', hand: undefined };

/** The kind of bench that a step takes by a way: that of the way where it says how, else the step's own; none in the unit's machine. */
export function benchTaken({ bench }: Pick<Step, 'bench'>, way?: Pick<Way, 'by'>): BenchKind | undefined {
  if (bench === undefined || bench === 'in place') return undefined;
  return way?.by === undefined ? bench : BY[way.by];
}

/** The kind that a step takes whichever of its ways is gone; none where one of them may do without. */
export function benchAnyway(step: Step): BenchKind | undefined {
  const { ways = [] } = step;
  if (ways.length < 2) return benchTaken(step, ways[0]);
  const kinds = new Set(ways.map((way) => (way.by === undefined ? undefined : benchTaken(step, way))));
  return kinds.size === 1 ? [...kinds][0] : undefined;
}

export function mayUse({ who }: Pick<Bench, 'who'>, personId: string): boolean {
  return who.length === 0 || who.some(({ id }) => id === personId);
}

/** "Mira, Sten", or "everybody". */
export function whoWords({ who }: Pick<Bench, 'who'>): string {
  return who.length === 0 ? 'everybody' : who.map(({ name }) => name).join(', ');
}

/**
 * Why a step is not done by this person now: the shop has what it needs, and all of it is out of use or for others. Of a
 * shop that names nothing of the kind nothing is known.
 */
export function benchRefusal(sheet: SheetFile, ref: string | undefined, benches: readonly Bench[], personId: string): string | undefined {
  const step = find(sheet.steps, ref);
  const kind = step && benchAnyway(step);
  return kind && kindRefusal(kind, benches, personId);
}

/** The same of a kind of bench, where the way that is gone tells which it is. */
export function kindRefusal(kind: BenchKind, benches: readonly Bench[], personId: string): string | undefined {
  const own = benches.filter((one) => one.kind === kind);
  const inUse = own.filter(({ out }) => out === null);
  if (own.length === 0 || inUse.some((one) => mayUse(one, personId))) return undefined;
  if (inUse.length === 0) return `needs the ${kind}, which is out of use: ${own.map(({ name, out }) => `${name}, ${out}`).join('; ')}`;
  return `needs the ${kind}, which is not for everybody: ${inUse.map((one) => `${one.name} is used by ${whoWords(one)}`).join('; ')}`;
}

/** Kinds that the steps of a sheet need, and of which the shop has none in use; nothing for a shop that names no bench at all. */
export function benchesLacking(sheet: SheetFile, benches: readonly Bench[]): readonly BenchKind[] {
  if (benches.length === 0) return [];
  return BENCH_KINDS.filter(
    (kind) => sheet.steps.some(({ bench }) => bench === kind) && !benches.some((one) => one.kind === kind && one.out === null),
  );
}

/** Whether a bench can be used at a time of the shop's day, and until when or from when on. */
export type BenchOpen =
  | { readonly isOpen: true; readonly until: string }
  | {
      readonly isOpen: false;
      readonly why: string | undefined;
      readonly from: { readonly day: string; readonly clock: string } | undefined;
    };

/** By its own hours or the shop's, and never on a day on which the shop is closed; `clock` is like "14:05". Nothing where neither says. */
export function benchOpen({ hours }: Pick<Bench, 'hours'>, shop: ShopHours | null, day: string, clock: string): BenchOpen | undefined {
  const its = hours && shop ? { week: hours.week, closed: [...hours.closed, ...shop.closed] } : (hours ?? shop);
  if (!its) return undefined;
  const today = openOn(its, day);
  if (today && clock >= today.from && clock < today.to) return { isOpen: true, until: today.to };
  if (today && clock < today.from) return { isOpen: false, why: undefined, from: { day, clock: today.from } };
  const next = nextOpenDay(its, daysOn('UTC', day, 1));
  return {
    isOpen: false,
    why: today ? `closed since ${today.to}` : closedWhy(its, day)!,
    from: next === undefined ? undefined : { day: next, clock: openOn(its, next)!.from },
  };
}
