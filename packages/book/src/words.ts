import { dropZeros, formatQuantity, unitBySymbol, type Quantity, type Window } from '@jubb/core';
import { dayWordsIn, type Joint, type JointStage, type MovedHow } from '@jubb/sheet';
import type { PayloadOf, UsedWorking } from './entries/kept.js';
import type { JobVariant } from './shape.js';
import { wrenchSetting } from './measured/working-for.js';
import { verdictOf } from './measured/verdict.js';
import type { Consequence, Upset } from './in-the-way.js';
import type { OwedLine } from './views.js';

/** ": in" behind what was judged; nothing behind what was not. */
export function judged(entry: { readonly working: UsedWorking | null }): string {
  const verdict = verdictOf(entry);
  return verdict ? `: ${verdict}` : '';
}

/** What there is of them, with commas between. */
export function joined(...parts: readonly (string | undefined)[]): string {
  return parts.filter(Boolean).join(', ');
}

/** "0.05 to 0.15 mm", "at most 0.2 mm". */
export function windowWords({ from, to }: Window, quantity: Quantity = 'length'): string {
  const words = (base: number): string => formatQuantity(base, quantity);
  if (from !== undefined && to !== undefined) return `${words(from).replace(/\s*[^\d.]+$/u, '')} to ${words(to)}`;
  return from === undefined ? (to === undefined ? '' : `at most ${words(to)}`) : `at least ${words(from)}`;
}

/** Digits after the point that a bench reads: hundredths of a millimetre and finer when a limit asks. */
export function mm(length: number, window: Window = {}): string {
  return formatQuantity(length, 'length', undefined, window);
}

export function inUnit(base: number, symbol: string): string {
  const quantity = (['mass', 'volume'] as const).find((candidate) => unitBySymbol(candidate, symbol).symbol === symbol) ?? 'mass';
  return formatQuantity(base, quantity, symbol);
}

export function nm(torque: number): string {
  return formatQuantity(torque, 'torque');
}

export function settingOf(pull: Parameters<typeof wrenchSetting>[0]): number {
  return Number(wrenchSetting(pull)?.output['setting'] ?? pull.torque);
}

/** What a line of the ledger says beside its count and name. */
export function lineDetails({ size, place, tray, direction, mark, condition, name }: PayloadOf<'came-off'>): readonly string[] {
  return [
    size === name ? undefined : size,
    place && `from ${place}`,
    tray && `tray ${tray}`,
    direction,
    mark && `marked: ${mark}`,
    condition && `looks ${condition}`,
  ].filter((part): part is string => Boolean(part));
}

/** Why a part failed: "suspected: dry grease". */
export function failedWords({ sort, words }: NonNullable<PayloadOf<'decision'>['cause']>): string {
  return words === undefined ? sort : `${sort}: ${words}`;
}

/** What is owed, when it comes due and what the customer said. */
export function owedWords({ what, due, hours, told }: Omit<PayloadOf<'owed'>, 'told'> & { readonly told?: string }): string {
  const when = [due === undefined ? '' : `by ${dueDay(due)}`, hours === undefined ? '' : `at ${hours} h`].filter(Boolean).join(' or ');
  return [when === '' ? what : `${what}, ${when}`, told === undefined ? '' : `the customer: ${told}`].filter(Boolean).join('; ');
}

function dueDay(due: string): string {
  return dayWordsIn('UTC', due, true);
}

/** A line of what is owed, without what the customer said. */
export function spoken({ what, due, hours }: OwedLine): Omit<PayloadOf<'owed'>, 'told'> {
  return { what, ...(due === null ? {} : { due }), ...(hours === null ? {} : { hours }) };
}

/** What went in, or that it was filled until it showed. */
export function filled({ amount, unit }: { readonly amount: number; readonly unit: string }): string {
  return amount > 0 ? inUnit(amount, unit) : 'filled until it showed';
}

/** What a pull was pulled to: its torque, the angle or the sight of its round, or nothing that was measured. */
export function pulledTo({ torque, pass }: Pick<PayloadOf<'pull'>, 'torque' | 'pass'>, joint: Joint | undefined): string {
  const stage = joint?.stages?.[pass - 1];
  if (torque > 0) return nm(torque);
  return stage && stage.kind !== 'torque' ? stageWords(stage) : 'by hand, unmeasured';
}

/** A round of a staged joint as it is said at the bench. */
export function stageWords(stage: JointStage | undefined): string {
  if (!stage) return 'by hand';
  const until = stage.until ? `, ${stage.until}` : '';
  switch (stage.kind) {
    case 'torque':
      return `${stage.torque?.figure ?? ''}${until}`;
    case 'angle':
      return `turn on ${stage.angle?.figure ?? ''}${until}`;
    case 'hand-snug':
      return `snug by hand${until}`;
    case 'started':
      return `started by hand${until}`;
    case 'turn':
      return `turn ${stage.angle?.figure ?? ''}${until}`;
    case 'click':
      return `until it clicks${until}`;
    case 'flush':
      return `until it is flush${until}`;
    case 'touch':
      return `until it touches${until}`;
    case 'flatten':
      return `until it lies flat${until}`;
  }
}

export const MOVED_WORDS: Readonly<Record<MovedHow, string>> = { off: 'taken off', aside: 'laid aside', loosened: 'loosened' };

export const UPSET_WORDS: Readonly<Record<Upset, string>> = {
  level: 'a level',
  air: 'air in it',
  tension: 'a tension',
  alignment: 'a line',
};

/** "coolant, cold, over the mark: 0 to 20 mm". */
export function upsetWords({ what, readAs, ...window }: Consequence): string {
  return [what, windowWords(window, readAs)].filter(Boolean).join(': ');
}
export const INTENT_WORDS = { keep: 'to be kept, comes off whole', sacrifice: 'to be renewed, may be spoilt' } as const;

/** What came out: "Gear oil, 2.1 L, dark, metal: flakes". */
export function cameOutWords({ name, litres, colour, metal }: PayloadOf<'came-out'>): string {
  const amount = litres === undefined ? undefined : formatQuantity(litres, 'volume', 'L');
  return ['Came out: ' + name, amount, colour, metal && `metal: ${metal}`].filter(Boolean).join(', ');
}

/** Turns as a person counts them, to the quarter where they are quarters: "2¼ turns out". */
export function turnsWords(turns: number): string {
  const size = Math.abs(turns);
  const quarter = QUARTERS[(size % 1) * 4];
  const figure =
    quarter === undefined ? dropZeros(size.toFixed(2)) : `${Math.floor(size) || quarter === '' ? Math.floor(size) : ''}${quarter}`;
  return `${figure} ${size === 1 ? 'turn' : 'turns'} ${turns < 0 ? 'out' : 'in'}`;
}

const QUARTERS: Readonly<Record<number, string>> = { 0: '', 1: '¼', 2: '½', 3: '¾' };

/** With a capital letter at its head. */
export function capital(words: string): string {
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}`;
}

const KNOWN_BY: Readonly<Record<JobVariant['by'], string>> = {
  found: 'found on the unit',
  booked: 'as it was booked in',
  nobody: 'not known yet; taken for the first of the sheet',
};

/** "D44 HD, 4.091 (found on the unit)". */
export function variantWords({ variant: { name }, by }: JobVariant): string {
  return `${name} (${KNOWN_BY[by]})`;
}
