import { entryWords, letGoAt, pressCrib, stepKind, wayOff, type AnyKeptEntry, type ShapingEntry } from '@jubb/book';
import {
  find,
  limitQuantity,
  limitWindow,
  settingQuantity,
  settingWindow,
  tooCoarse,
  type SheetFile,
  type Stage,
  type Step,
  type Tool,
} from '@jubb/sheet';
import { playThrough } from './play.js';

/** A step as it goes by: what is kept at it, what stands before it. */
export interface RehearsedStep {
  readonly ref: string;
  readonly stage: Stage;
  readonly title: string;
  readonly act: string;
  /** What is kept, in its words; alike ones said once. */
  readonly kept: readonly string[];
  /** Entries of it. */
  readonly entries: number;
  /** "retainer ring into the oven at 150 °C, 25 min, from Count on". */
  readonly ready?: string;
  /** Who has to look at it before it goes on. */
  readonly holds?: string;
  /** How long it waits afterwards. */
  readonly waits?: string;
  /** What nobody can read or do any more once it is done. */
  readonly hides: readonly string[];
}

/** A job before it is begun: what it comes to, what must be ready, what is lacking. */
export interface Rehearsal {
  readonly steps: readonly RehearsedStep[];
  readonly lacking: readonly string[];
  /** Parts that are renewed, with their number. */
  readonly newParts: readonly { readonly name: string; readonly number?: string; readonly pieces: number }[];
  /** Where it stuck; a sheet that plays to the end has none. */
  readonly stuck?: string;
}

const MOST_LINES = 6;

/** Plays a job through on the sheet as a job would have it, and says what a mechanic wants to know beforehand. */
export function rehearse(given: SheetFile, tools: readonly Tool[], begins: readonly ShapingEntry[] = []): Rehearsal {
  const { entries, state, stuck } = playThrough(given, { begins });
  const { sheet } = state;
  const byStep = new Map<string, AnyKeptEntry[]>();
  for (const entry of entries) if (entry.step !== null) byStep.set(entry.step, [...(byStep.get(entry.step) ?? []), entry]);
  return {
    steps: sheet.steps.map((step) => rehearsed(sheet, step, byStep.get(step.ref) ?? [])),
    lacking: toolsLacking(sheet, tools),
    newParts: sheet.parts
      .filter(({ policy }) => policy === 'renew')
      .map(({ name, number, quantity }) => ({ name, pieces: quantity, ...(number === undefined ? {} : { number }) })),
    ...(stuck ? { stuck: `“${stuck.step.title}” does not end: ${stuck.why}` } : {}),
  };
}

function rehearsed(sheet: SheetFile, step: Step, own: readonly AnyKeptEntry[]): RehearsedStep {
  const { lead, wait, holdPoint } = step;
  const from = lead?.from === undefined ? undefined : find(sheet.steps, lead.from)?.title;
  return {
    ref: step.ref,
    stage: step.stage,
    title: step.title,
    act: step.act,
    kept: saidOnce(own.filter(({ kind }) => kind !== 'caution-read').map((entry) => entryWords(entry, sheet))),
    entries: own.length,
    hides: hiddenAt(sheet, step),
    ...(lead ? { ready: `${lead.what}: ${lead.time}${from === undefined ? ', from the beginning' : `, from “${from}” on`}` } : {}),
    ...(holdPoint ? { holds: `${holdPoint.who} ${holdPoint.what}` } : {}),
    ...(wait ? { waits: `${wait.time}: ${wait.what}${wait.hot ? ', hot' : ''}` } : {}),
  };
}

function saidOnce(words: readonly string[]): readonly string[] {
  const once = [...new Set(words.filter((line) => line !== ''))];
  return once.length > MOST_LINES ? [...once.slice(0, MOST_LINES), `and ${once.length - MOST_LINES} more`] : once;
}

/** Settings that it closes, and steps that come too late after it. */
function hiddenAt({ settings, steps }: SheetFile, { ref }: Step): readonly string[] {
  return [
    ...settings.filter(({ proof }) => proof?.closes === ref).map(({ name }) => `${name} can be read no more`),
    ...steps.filter(({ tooLateAfter }) => tooLateAfter === ref).map(({ title }) => `too late for “${title}”`),
  ];
}

/** Tools of a kind that the crib has not, or that could never judge; pipes and presses that are too small or too few. */
export function toolsLacking(sheet: SheetFile, tools: readonly Tool[]): readonly string[] {
  const kinds = new Set(sheet.steps.flatMap((step) => stepKind(step).tool?.(step, sheet) ?? []));
  const none = [...kinds]
    .filter((kind) => tools.every((tool) => tool.kind !== kind))
    .map((kind) => `no ${kind.replaceAll('-', ' ')} in the crib`);
  const used = new Set(sheet.steps.flatMap(({ record }) => [record.setting, record.limit]));
  const coarse = [
    ...sheet.settings.map((one) => ({
      one,
      read: { window: settingWindow(one), quantity: settingQuantity(one), kind: one.tool as string, repeats: one.repeats },
    })),
    ...sheet.limits.flatMap((one) =>
      one.tool
        ? [{ one, read: { window: limitWindow(one), quantity: limitQuantity(one), kind: one.tool as string, repeats: one.repeats ?? 3 } }]
        : [],
    ),
  ].flatMap(({ one, read }) => {
    const why = used.has(one.ref) && tools.some(({ kind }) => kind === read.kind) ? tooCoarse(read, tools) : undefined;
    return why === undefined ? [] : [`${one.name}: ${why}`];
  });
  const crib = pressCrib(tools);
  const pressed = sheet.steps
    .flatMap((step) => letGoAt(sheet, step))
    .flatMap((fit) => {
      const way = wayOff(sheet, fit, new Map([[fit.part, 'keep']]), crib);
      if (!('used' in way)) return [`${fit.name}, to come off: ${way.issues[0]?.words ?? ''}`];
      const which = String(way.used.output['which']);
      return which.startsWith('none') ? [`${fit.name}, to come off: ${which}`] : [];
    });
  return [...new Set([...none, ...coarse, ...pressed])];
}
