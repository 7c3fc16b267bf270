import {
  type SettingMethod,
  type Joint,
  type JointStage,
  type Setting,
  type SheetFile,
  find,
  partName,
  settingQuantity,
  settingWindow,
  windowOf,
  STAGE_NAMES,
  type MovedHow,
} from '@jubb/sheet';
import type { AnyKeptEntry } from './entries/kept.js';
import { doubtOf, figuresWords } from './found.js';
import type { EndPlayPayload, NutPayload, PullPayload } from './kinds/build-payloads.js';
import type { CameOffPayload, CameOutPayload, FailedBy, OwedPayload, ReplacementHerePayload } from './kinds/payloads.js';
import { depthsText, readingLine } from './measured/reading-line.js';
import { mean, wrenchSetting } from './measured/working-for.js';
import { gearMovedWords, patternWords } from './runs/gear-words.js';
import { placeNumbers } from './runs/joint-run.js';
import { didWords, verdictOf } from './runs/setting-run.js';
import type { OwedLine } from './views.js';
import { dropZeros, formatQuantity, unitBySymbol, workings, type Window } from '@jubb/core';

/** Digits after the point that a bench reads: hundredths of a millimetre and finer when a limit asks. */
export function mm(length: number, window: Window = {}): string {
  return formatQuantity(length, 'length', undefined, window);
}

/** When a setting was read, in the words of what it is set by. */
function momentWords(moment: EndPlayPayload['moment'], setting: Setting | undefined): string {
  const byNut = setting !== undefined && SET_BY_NUT.has(setting.method);
  if (moment === 'proved') return 'proved';
  if (moment === 'now') return byNut ? 'before the nut is locked' : 'before it is fixed';
  return byNut ? 'with the nut locked' : 'as set';
}

const SET_BY_NUT: ReadonlySet<SettingMethod> = new Set(['castle-nut', 'locknut', 'cone-and-locknut', 'crush-sleeve']);

/** "New, in hand: 2 × Lip seal, shelf B3". */
function newHereWords({ part, count = 1, seen }: ReplacementHerePayload, sheet: SheetFile): string {
  return part === undefined ? `The new one is here: ${seen}` : `New, in hand: ${count} × ${partName(sheet, part)}, ${seen}`;
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
export function lineDetails({ size, place, tray, direction, mark, condition, name }: CameOffPayload): readonly string[] {
  return [
    size === name ? undefined : size,
    place && `from ${place}`,
    tray && `tray ${tray}`,
    direction,
    mark && `marked: ${mark}`,
    condition && `looks ${condition}`,
  ].filter((part): part is string => Boolean(part));
}

/** One entry as a colleague would say it. */
export function entryWords(entry: AnyKeptEntry, sheet: SheetFile): string {
  const verdict = verdictOf(entry);
  const judged = verdict ? `: ${verdict}` : '';
  switch (entry.kind) {
    case 'finding': {
      const { text, place, sort, nothing } = entry.payload;
      if (nothing) return `Looked over: ${text}`;
      const found = [text, place].filter(Boolean).join(', ');
      return sort === undefined ? found : `${capital(sort)}: ${found}`;
    }
    case 'came-off':
      return [`${entry.payload.count} × ${entry.payload.name}`, ...lineDetails(entry.payload)].filter(Boolean).join(', ');
    case 'mark':
      return [`Marked: ${entry.payload.what}, ${entry.payload.mark}`, entry.payload.with && `with ${entry.payload.with}`]
        .filter(Boolean)
        .join(', ');
    case 'wait':
      return `Clock: ${entry.payload.what}, ${formatQuantity(entry.payload.seconds, 'time', entry.payload.seconds < 3600 ? 'min' : 'h')}`;
    case 'wait-over':
      return 'The wait is over';
    case 'mark-met':
      return 'Mark met';
    case 'went-in':
      return `${entry.payload.count} × ${entry.payload.name} in again`;
    case 'tick':
      return [find(sheet.steps, entry.step ?? '')?.title ?? 'Done', entry.payload.note].filter(Boolean).join(': ');
    case 'caution-read':
      return `Caution read: ${find(sheet.cautions, entry.payload.caution)?.text ?? entry.payload.caution}`;
    case 'reading': {
      const limit = find(sheet.limits, entry.payload.limit);
      const { figure = '', how = '' } = limit ? readingLine(limit, entry.payload) : {};
      return `${limit?.name ?? entry.payload.limit} ${figure}${how === '' ? '' : ` (${how})`}${judged}`;
    }
    case 'look': {
      const limit = find(sheet.limits, entry.payload.limit);
      return [`${limit?.name ?? ''}: ${find(limit?.looks ?? [], entry.payload.look)?.words ?? entry.payload.look}`, entry.payload.note]
        .filter(Boolean)
        .join(', ');
    }
    case 'decision':
      return [
        `${entry.payload.quantity} × ${partName(sheet, entry.payload.part)}: ${entry.payload.fate}`,
        entry.payload.reason,
        entry.payload.cause && `cause ${failedWords(entry.payload.cause)}`,
      ]
        .filter(Boolean)
        .join(', ');
    case 'worked': {
      const { output } = entry.working ?? {};
      const what = output?.['what'] ?? output?.['bad'] ?? output?.['settle'];
      const { part: partRef, setting, joint, fit } = entry.payload;
      const about =
        find(sheet.settings, setting)?.name ??
        find(sheet.joints, joint)?.name ??
        find(sheet.fits ?? [], fit)?.name ??
        (partRef === undefined ? '' : partName(sheet, partRef));
      if ([setting, joint, fit].some((ref) => ref !== undefined)) return `${about}: ${didWords(entry)}${judged}`;
      const part = about === '' ? '' : `${about}, `;
      return `${part}${workings.describe(entry.payload.working)?.title ?? entry.payload.working}${judged}${typeof what === 'string' ? `. ${what}` : ''}`;
    }
    case 'answered':
      return [`Quote ${entry.payload.quote}, the customer: ${entry.payload.answer}`, entry.payload.option, entry.payload.words]
        .filter(Boolean)
        .join(', ');
    case 'counted':
      return `${entry.payload.count} × ${entry.payload.name} on the bench`;
    case 'fluid':
      return `${find(sheet.fluids, entry.payload.fluid)?.name ?? entry.payload.fluid}: ${filled(entry.payload)}`;
    case 'seal-fitted': {
      const seal = find(sheet.seals, entry.payload.seal);
      const { depths } = entry.payload;
      return `${seal ? partName(sheet, seal.part) : 'Seal'} fitted${depths.length > 0 ? `, depth ${depthsText(depths, seal?.depth ? windowOf(seal.depth, 'length') : {})}` : ''}${judged}`;
    }
    case 'nut':
      return nutWords(entry.payload);
    case 'end-play': {
      const setting = find(sheet.settings, entry.payload.setting);
      return `${setting?.name ?? entry.payload.setting} ${setting ? formatQuantity(mean(entry.payload.readings), settingQuantity(setting), undefined, settingWindow(setting, entry.payload.bearings)) : ''}, ${momentWords(entry.payload.moment, setting)}${judged}${entry.payload.bearings === 'used' ? ' (window of used bearings)' : ''}`;
    }
    case 'accepted':
      return `${find(sheet.settings, entry.payload.setting)?.name ?? entry.payload.setting}: unsure, and accepted so: ${entry.payload.why}`;
    case 'pattern':
      return `Contact pattern: ${patternWords(entry.payload)}${judged}${entry.payload.left === undefined ? '' : `, left so: ${entry.payload.left}`}`;
    case 'gear-moved': {
      const undone = entry.payload.undone.map((ref) => find(sheet.joints, ref)?.name ?? ref);
      return `${capital(gearMovedWords(entry.payload))}${undone.length > 0 ? `; undone for it: ${undone.join(', ')}` : ''}`;
    }
    case 'pull': {
      const { joint: ref, pass, place, torque, result, note, sight } = entry.payload;
      const joint = find(sheet.joints, ref);
      const number = joint ? placeNumbers(joint)[place] : undefined;
      const seen = sight && result !== 'trouble' ? `, its curve showed: ${sight}` : '';
      const how = `${pulledTo(entry.payload, joint)}${torque > 0 ? `, wrench at ${nm(settingOf(entry.payload))}` : ''}${seen}`;
      return `${joint?.name ?? ref}, pass ${pass}, number ${number ?? ''}: ${how}, ${result}${note ? ` (${note})` : ''}`;
    }
    case 'fitted': {
      const { fit, by, driver, support, force, temperature, home, note } = entry.payload;
      const how = { press: 'pressed', heat: 'warmed and dropped', hand: 'driven by hand' }[by];
      return [
        `${find(sheet.fits ?? [], fit)?.name ?? fit}: ${how}`,
        temperature === undefined ? '' : formatQuantity(temperature, 'temperature', '°C'),
        force === undefined ? '' : `most ${formatQuantity(force, 'force')}`,
        driver,
        support && `on ${support}`,
        `home: ${home}`,
        note && `although ${note}`,
      ]
        .filter(Boolean)
        .join(', ');
    }
    case 'open-end': {
      const { what, place, turns, closes } = entry.payload;
      return `Open end: ${[what, place, turns === undefined ? undefined : turnsWords(turns)].filter(Boolean).join(', ')}; closed by ${closes}`;
    }
    case 'photo':
      return `Photo${entry.payload.words ? `: ${entry.payload.words}` : ''}`;
    case 'clip':
      return `${entry.payload.sort === 'audio' ? 'Said' : 'Clip'}, ${Math.round(entry.payload.seconds)} s: ${entry.payload.words}`;
    case 'moved':
      return [`${capital(MOVED_WORDS[entry.payload.how])}: ${entry.payload.what}`, entry.payload.routing].filter(Boolean).join(', ');
    case 'put-back':
      return 'Back where it was';
    case 'intent':
      return `${partName(sheet, entry.payload.part)}: ${INTENT_WORDS[entry.payload.intent]}`;
    case 'old-part':
      return `Old ${entry.payload.name}: ${entry.payload.fate}${entry.payload.compared ? ', held against the new one' : ''}`;
    case 'old-seal-out': {
      const seal = find(sheet.seals, entry.payload.seal);
      const name = seal ? partName(sheet, seal.part) : entry.payload.seal;
      return [`Old ${name}: ${entry.payload.whole ? 'out, whole' : 'not all of it is out'}`, entry.payload.words]
        .filter(Boolean)
        .join(', ');
    }
    case 'replacement-here':
      return newHereWords(entry.payload, sheet);
    case 'came-out':
      return cameOutWords(entry.payload);
    case 'hold':
      return `On hold for ${entry.payload.reason}: ${entry.payload.words}`;
    case 'hold-off':
      return ['Taken up again', entry.payload.words].filter(Boolean).join(': ');
    case 'open-end-closed':
      return 'Open end closed';
    case 'strike':
      return `Struck: ${entry.payload.reason}`;
    case 'note':
      return entry.payload.text;
    case 'next-time':
      return `Next time: ${entry.payload.text}`;
    case 'value-taken':
      return `Used as it stands: ${doubtOf(sheet, entry.payload.list, entry.payload.line)?.name ?? entry.payload.line}, only somebody’s word`;
    case 'value-found': {
      const { list, line, figures, source } = entry.payload;
      const held = find<{ readonly ref: string }>(sheet[list], line);
      return `Found: ${doubtOf(sheet, list, line)?.name ?? line}, ${figuresWords(list, { ...held }, figures)} (${source})`;
    }
    case 'owed':
      return `Owed: ${owedWords(entry.payload)}`;
    case 'owed-settled':
      return entry.payload.how === 'done' ? 'Owed no more: done' : `Owed no more: ${entry.payload.reason ?? 'dropped'}`;
    case 'pinned':
      return `Goes on by revision ${entry.payload.revision} of the sheet`;
    case 'way': {
      const step = find(sheet.steps, entry.step ?? '');
      const { agreed } = entry.payload;
      const consent = agreed ? `; departs from the maker: ${agreed.foreman} agrees, the customer: ${agreed.customer}` : '';
      return `Way: ${find(step?.ways ?? [], entry.payload.way)?.name ?? entry.payload.way}${consent}`;
    }
    case 'stage':
      return [`On to ${STAGE_NAMES[entry.payload.stage]}`, entry.payload.why && `although something was open: ${entry.payload.why}`]
        .filter(Boolean)
        .join(', ');
    case 'sign':
      return `Signed: ${entry.payload.name}`;
    case 'handed-over':
      return `Handed over to ${entry.payload.receivedBy}`;
  }
}

/** Why a part failed: "suspected: dry grease". */
export function failedWords({ sort, words }: FailedBy): string {
  return words === undefined ? sort : `${sort}: ${words}`;
}

/** What is owed, when it comes due and what the customer said. */
export function owedWords({ what, due, hours, told }: Omit<OwedPayload, 'told'> & { readonly told?: string }): string {
  const when = [due === undefined ? '' : `by ${dueDay(due)}`, hours === undefined ? '' : `at ${hours} h`].filter(Boolean).join(' or ');
  return [when === '' ? what : `${what}, ${when}`, told === undefined ? '' : `the customer: ${told}`].filter(Boolean).join('; ');
}

function dueDay(due: string): string {
  return new Date(due).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' });
}

/** A line of what is owed, without what the customer said. */
export function spoken({ what, due, hours }: OwedLine): Omit<OwedPayload, 'told'> {
  return { what, ...(due === null ? {} : { due }), ...(hours === null ? {} : { hours }) };
}

/** What went in, or that it was filled until it showed. */
export function filled({ amount, unit }: { readonly amount: number; readonly unit: string }): string {
  return amount > 0 ? inUnit(amount, unit) : 'filled until it showed';
}

/** What a pull was pulled to: its torque, the angle or the sight of its round, or nothing that was measured. */
export function pulledTo({ torque, pass }: Pick<PullPayload, 'torque' | 'pass'>, joint: Joint | undefined): string {
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

function nutWords({ act, angle, torque = 0 }: NutPayload): string {
  switch (act) {
    case 'seated':
      return `Nut seated at ${nm(torque)}, backed off ${-angle}°`;
    case 'clicked':
      return 'Bolt pulled until it clicked';
    case 'lined-up':
      return 'Set to its mark again';
    case 'locked':
      return 'Locknut tight against it';
    case 'turned':
      return nutTurned(angle);
  }
}

function nutTurned(angle: number): string {
  if (angle === 0) return 'Nut left where it was and locked';
  return angle > 0 ? `Nut tightened ${angle}° and locked` : `Nut loosened ${-angle}° and locked`;
}

export const MOVED_WORDS: Readonly<Record<MovedHow, string>> = { off: 'taken off', aside: 'laid aside', loosened: 'loosened' };
export const INTENT_WORDS = { keep: 'to be kept, comes off whole', sacrifice: 'to be renewed, may be spoilt' } as const;

/** What came out: "Gear oil, 2.1 L, dark, metal: flakes". */
export function cameOutWords({ name, litres, colour, metal }: CameOutPayload): string {
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

function capital(words: string): string {
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}`;
}
