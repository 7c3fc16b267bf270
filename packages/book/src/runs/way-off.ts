import { find, type Fit, type Part, type SheetFile, type Step, type Tool } from '@jubb/sheet';
import type { UsedWorking } from '../entries/kept.js';
import { workOut } from '../measured/measured.js';
import { fitWindow } from './fit-run.js';

/** The working that says how a fit comes off. */
export const FIT_OFF = 'fit.off';

export type Intent = 'keep' | 'sacrifice';
export type Intents = ReadonlyMap<string, Intent>;

/** Whether a part is to be kept: as somebody said, else by what the sheet does with it. */
export function intentOf({ ref, policy }: Pick<Part, 'ref' | 'policy'>, intents: Intents): Intent {
  return intents.get(ref) ?? (policy === 'renew' ? 'sacrifice' : 'keep');
}

/** Fits that come apart at a step. */
export function letGoAt({ fits = [] }: Pick<SheetFile, 'fits'>, { letsGo = [] }: Pick<Step, 'letsGo'>): readonly Fit[] {
  return letsGo.flatMap((ref) => find(fits, ref) ?? []);
}

/** A part that comes off a fit at a step, and of which nobody said whether it is kept; what is renewed may be spoilt. */
export function keptOrNot(sheet: Pick<SheetFile, 'fits' | 'parts'>, step: Pick<Step, 'letsGo'>, intents: Intents): Part | undefined {
  return letGoAt(sheet, step)
    .flatMap(({ part }) => find(sheet.parts, part) ?? [])
    .find(({ ref, policy }) => policy !== 'renew' && !intents.has(ref));
}

/** What of a crib stands under a fit, and presses. */
interface Crib {
  readonly tubes: readonly { readonly name: string; readonly inside: string; readonly outside: string; readonly length: string }[];
  readonly capacity?: string;
}

const NO_CRIB: Crib = { tubes: [] };

/** Pipes and presses of a crib; a pipe of which nobody wrote down the length stands under nothing. */
export function pressCrib(tools: readonly Tool[]): Crib {
  const tubes = tools
    .filter(({ kind, length }) => kind === 'tube' && length !== null)
    .map(({ tag, name, low, high, length }) => ({
      name: `${tag} ${name}`,
      inside: `${low} mm`,
      outside: `${high} mm`,
      length: `${length ?? 0} mm`,
    }));
  const most = Math.max(0, ...tools.filter(({ kind, retired }) => kind === 'press' && !retired).map(({ high }) => high));
  return { tubes, ...(most > 0 ? { capacity: `${most} N` } : {}) };
}

/** What the working of coming off is given without asking: the sheet's fit, the shop's pipes and press. */
export function presetForOff(
  sheet: SheetFile,
  fit: Fit,
  intents: Intents,
  { tubes, capacity }: Crib = NO_CRIB,
): Readonly<Record<string, unknown>> {
  const { off = {} } = fit;
  const part = find(sheet.parts, fit.part);
  const others = (off.with ?? []).flatMap((ref) => {
    const other = find(sheet.fits ?? [], ref);
    const force = other && wayOff(sheet, { ...other, off: {} }, intents);
    return force && 'used' in force ? [Number(force.used.output['force'])] : [];
  });
  return {
    ring: fit.pressedOn,
    fate: part && intentOf(part, intents) === 'sacrifice' ? 'spoil' : 'keep',
    seat: fit.seat,
    long: fit.long,
    outside: fit.outside,
    interference: `${Math.max(0, fitWindow(fit)?.to ?? 0).toFixed(4)} mm`,
    outerOf: fit.warmed === 'soft-hub' ? 'aluminium' : 'steel',
    ...(off.friction === undefined ? {} : { friction: off.friction }),
    ...(off.passes === undefined ? {} : { passes: off.passes }),
    ...(off.way === undefined ? {} : { way: off.way }),
    ...(off.heatMost === undefined ? {} : { heatMost: off.heatMost }),
    ...(others.length === 0 ? {} : { others: `${others.reduce((sum, force) => sum + force, 0).toFixed(0)} N` }),
    ...(capacity === undefined ? {} : { capacity }),
    ...(tubes.length === 0 ? {} : { tubes }),
  };
}

/** How a fit comes off, or why it does not so. */
export function wayOff(sheet: SheetFile, fit: Fit, intents: Intents, crib: Crib = NO_CRIB): ReturnType<typeof workOut> {
  return workOut(FIT_OFF, presetForOff(sheet, fit, intents, crib));
}

/** The push at which somebody stops, N; none where the working refuses. */
export function stopAt(used: UsedWorking | null): number | undefined {
  const stop = used?.output['stop'];
  return typeof stop === 'number' ? stop : undefined;
}
