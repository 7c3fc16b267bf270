import { type Fit, baseOf } from '@jubb/sheet';
import type { AnyKeptEntry, KeptEntry } from '../entries/kept.js';
import { verdictOf } from '../measured/verdict.js';
import { workings } from '@jubb/core';

/** Where a fit stands: measured, worked out how it goes home, home. */
export interface FitRun {
  readonly fit: Fit;
  /** Shaft and bore against each other, and what came out. */
  readonly measured: KeptEntry<'worked'> | undefined;
  readonly verdict: 'in' | 'out' | 'unsure' | undefined;
  /** What it takes: a force, or a temperature and a time. */
  readonly worked: KeptEntry<'worked'> | undefined;
  readonly fitted: KeptEntry<'fitted'> | undefined;
}

export const FIT_MEASURED = 'fit.measured';
/** How it goes home → the working that says what it takes. */
export const FIT_WAYS = { press: 'fit.press', heat: 'fit.heat', hand: 'press.sleeve' } as const;

/** A new measurement begins the fit anew: what was worked out from the old one holds no more. */
export function fitRun(fit: Fit, entries: readonly AnyKeptEntry[]): FitRun {
  let run: FitRun = { fit, measured: undefined, verdict: undefined, worked: undefined, fitted: undefined };
  for (const entry of entries) {
    if (entry.kind === 'worked' && entry.payload.fit === fit.ref)
      run =
        entry.payload.working === FIT_MEASURED
          ? { fit, measured: entry, verdict: verdictOf(entry), worked: undefined, fitted: undefined }
          : { ...run, worked: entry };
    if (entry.kind === 'fitted' && entry.payload.fit === fit.ref) run = { ...run, fitted: entry };
  }
  return run;
}

/** Interference that is wanted, mm; minus is play. */
export function fitWindow(fit: Fit): { readonly from: number; readonly to: number } | undefined {
  const both = { shaft: fit.seat, bore: fit.seat };
  const run = workings.run(FIT_MEASURED, { ...measuredPreset(fit), ...both });
  return run?.ok ? { from: Number(run.run.output['wantedLeast']), to: Number(run.run.output['wantedMost']) } : undefined;
}

function measuredPreset({ zones, seat, wanted }: Fit): Preset {
  const [holeZone, shaftZone] = zones?.split('/') ?? [];
  return zones ? { wanted: 'zones', nominal: seat, holeZone, shaftZone } : { wanted: 'figures', from: wanted?.from, to: wanted?.to };
}

type Preset = Readonly<Record<string, unknown>>;

/** What a working of a fit can be given without asking: the sheet's seat and window, and what was measured. */
export function presetForFit(working: string, { fit, measured }: FitRun, benchC: number): Preset {
  const output = measured?.working?.output ?? {};
  const interference = Number(output['interference'] ?? 0);
  const figure = (mm: number): string => `${Number(mm.toFixed(4))} mm`;
  const known = measured ? { interference: figure(Math.max(0, interference)) } : {};
  switch (working) {
    case FIT_MEASURED:
      return measuredPreset(fit);
    case FIT_WAYS.press:
      return {
        seat: fit.seat,
        long: fit.long,
        outside: fit.outside,
        ...known,
        ...(measured ? { interferenceU: figure(Math.min(0.1, Number(output['u'] ?? 0))) } : {}),
      };
    case FIT_WAYS.heat:
      return {
        seat: fit.seat,
        what: fit.warmed,
        outside: fit.outside,
        width: fit.long,
        bench: `${benchC} °C`,
        ...(fit.most ? { most: fit.most } : {}),
        ...(fit.warmed === 'soft-hub' ? { ringOf: 'aluminium' } : {}),
        ...known,
      };
    case FIT_WAYS.hand:
      return sleevePreset(fit);
    default:
      return {};
  }
}

function sleevePreset({ pressedOn, seat, outside }: Fit): Preset {
  switch (pressedOn) {
    case 'outer ring':
      return { into: 'housing', outside: seat };
    case 'both rings':
      return { into: 'both', bore: seat, outside };
    case 'inner ring':
    case 'the part itself':
      return { into: 'shaft', bore: seat };
  }
}

/** What drives it home without touching what must not be touched: common practice, half a millimetre of air each side. */
export function driverWords({ pressedOn, seat, outside }: Fit): string {
  const [at, rim] = [baseOf(seat, 'length'), baseOf(outside, 'length')];
  switch (pressedOn) {
    case 'inner ring':
      return `Tube on the inner ring only: bore over ${at + 0.5} mm. Never through the balls or rollers.`;
    case 'outer ring':
      // It goes into the seat with the ring.
      return `Driver on the outer ring only: ${at - 0.5} mm at most across. Never through the balls or rollers.`;
    case 'both rings':
      return `Flat plate on both rings at once: over ${at + 0.5} mm inside, under ${rim - 0.5} mm outside.`;
    case 'the part itself':
      return `Driver under ${rim - 0.5} mm across, flat on its face.`;
  }
}
