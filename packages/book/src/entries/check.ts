import type { Quantity } from '@jubb/core';
import { dayIn, find, quantitiesOf, type Role, type SheetFile, type Tool } from '@jubb/sheet';
import { validated } from '@jubb/sheet/given';
import { holdWords, holdsBefore } from '../hold-points.js';
import { mayBeTimed } from '../leads.js';
import { isWork } from '../no-work.js';
import { newMissing, mayNeedNew, type NewFirst } from '../parts/new-first.js';
import { mayHide } from '../runs/proof.js';
import { newPartWords } from '../parts/new-parts.js';
import { jobState, unreadUnder, type JobState } from '../state.js';
import { wrong, type Bound, type Given, type Held, type PointedList, type Refusal, type Wrong } from '../kinds/define-kind.js';
import { kindOf, mayMake } from '../kinds/registry.js';
import { clockWrong } from './early.js';
import type { NewEntry } from './entry.js';
import { liveOf, type AnyKeptEntry, type EntryKind } from './kept.js';

/** A tool with the zone of its shop, and with when it was last found out, which moved its due day into the past. */
export type CribTool = Tool & { readonly zone: string; readonly foundOutAt: string | undefined };

/** What an entry is held against before the job is looked at. */
export interface By {
  readonly sheet: SheetFile;
  readonly tools: ReadonlyMap<string, CribTool>;
  readonly role: Role;
  /** Milliseconds since 1970, by the clock of who asks. */
  readonly now: number;
}

/** Why an entry is not to be kept, by itself, by its sheet and its tool; what the job holds is another matter. */
export function checkEntry(entry: NewEntry, by: By): Refusal | undefined {
  const kind = kindOf(entry.kind);
  const { issues } = validated<object>(kind.payload, entry.payload, 'payload');
  if (!mayMake(entry.kind, by.role))
    return { code: 'not-yours', errors: [], detail: `An entry "${entry.kind}" is not made by: ${by.role}` };
  const wrongs: Wrong[] = issues.map(({ path, message, given }) => ({
    field: path,
    allowed: message,
    ...(given === undefined ? {} : { given }),
  }));
  const isSound = issues.length === 0;
  const takes = isSound ? kind.takes?.(entry.payload as never, by.role) : undefined;
  if (takes !== undefined) return { code: 'not-yours', errors: [], detail: takes };
  if (entry.step !== undefined && !find(by.sheet.steps, entry.step))
    wrongs.push({ field: 'step', allowed: 'is not a step of the sheet of this job', given: entry.step });
  if (entry.toolId !== undefined && !by.tools.has(entry.toolId))
    wrongs.push({ field: 'toolId', allowed: 'is not a tool of the crib', given: entry.toolId });
  if (entry.kind !== 'strike' && entry.strikes !== undefined) wrongs.push({ field: 'strikes', allowed: 'goes with kind "strike" only' });
  if (isSound)
    wrongs.push(...toolWrong(entry, by), ...pointersWrong(entry, by.sheet), ...(kind.check?.(givenOf(entry) as never, by.sheet) ?? []));
  return wrongs.length > 0 ? wrong(...wrongs) : undefined;
}

function givenOf({ id, kind, payload, step, strikes, takenAt }: NewEntry): Given {
  return { id, kind, payload: payload as Given['payload'], step: step ?? null, strikes: strikes ?? null, takenAt };
}

/** Why what was read or pulled cannot have been by this tool: it reads something else, or its check was over by then. */
function toolWrong(entry: NewEntry, { sheet, tools, now }: By): readonly Wrong[] {
  const tool = entry.toolId === undefined ? undefined : tools.get(entry.toolId);
  const quantity = kindOf(entry.kind).reads?.(entry.payload as never, sheet);
  if (!tool || quantity === undefined) return [];
  const figures = kindOf(entry.kind).figures?.(entry.payload as never) ?? [];
  const allowed = readsOther(tool, quantity) ?? pastRange(tool, figures) ?? pastCheck(tool, entry.takenAt, now);
  return allowed === undefined ? [] : [{ field: 'toolId', allowed, given: `${tool.tag} ${tool.name}` }];
}

function readsOther(tool: Tool, quantity: Quantity): string | undefined {
  const reads = quantitiesOf(tool);
  return reads.includes(quantity) ? undefined : `reads a ${reads.join(' or ')}; a ${quantity} was kept`;
}

/** A tool that was set to nothing somewhere reads to either side of it. */
function pastRange({ low, high, unit }: Tool, figures: readonly number[]): string | undefined {
  if (high <= low) return undefined;
  const isPast = (figure: number): boolean => Math.abs(figure) > high || (low > 0 && figure < low);
  return figures.some(isPast) ? `reads ${low} to ${high} ${unit} only` : undefined;
}

function pastCheck({ calibrationDue, foundOutAt, retired, zone }: CribTool, at: string, now: number): string | undefined {
  // A clock that is ahead makes no tool older: nothing was read later than now.
  const takenAt = new Date(Math.min(Date.parse(at), now)).toISOString();
  if (retired && retired < dayIn(zone, takenAt)) return `was put out of use ${retired}`;
  const isKnownSince = foundOutAt !== undefined && foundOutAt > takenAt;
  return calibrationDue !== null && !isKnownSince && calibrationDue < dayIn(zone, takenAt)
    ? `is past its check, which was due ${calibrationDue}`
    : undefined;
}

/** Fields that name what the sheet does not have. */
function pointersWrong(entry: NewEntry, sheet: SheetFile): readonly Wrong[] {
  const pointers = Object.entries(kindOf(entry.kind).points ?? {}) as [string, PointedList][];
  return pointers.flatMap(([field, list]) => {
    const lines: readonly { readonly ref: string }[] = sheet[list] ?? [];
    const refs = [fieldOf(entry.payload, field)].flat();
    const unknown = refs.find((ref) => ref !== undefined && !find(lines, String(ref)));
    if (unknown === undefined) return [];
    const allowed =
      list === 'steps'
        ? 'is not a step of the sheet of this job'
        : `is not among the ${list} of the sheet: ${lines.map(({ ref }) => ref).join(', ')}`;
    return [{ field: `payload.${field}`, allowed, given: String(unknown) }];
  });
}

function fieldOf(payload: object, field: string): unknown {
  return (payload as Readonly<Record<string, unknown>>)[field];
}

/** How much of the job must be looked at before an entry is kept: all of it, or what new parts are here. */
export type Guard = 'all' | 'new parts';

/** Nothing for an entry whose keeping depends on nothing else that the job holds. */
export function guardOf(entries: readonly NewEntry[], sheet: SheetFile): Guard | undefined {
  if (
    entries.some(
      (entry) =>
        needsAll(entry) || mayBeHeld(entry, sheet) || mayBeEarly(entry, sheet) || mayHide(sheet, find(sheet.steps, entry.step), entry.kind),
    )
  )
    return 'all';
  // A pull comes every few seconds: it does not read the whole book of its job.
  return entries.some((entry) => mayWantNew(givenOf(entry), sheet)) ? 'new parts' : undefined;
}

function needsAll(entry: NewEntry): boolean {
  const { needs, outside, binds } = kindOf(entry.kind);
  const isBound = Object.keys(binds ?? {}).some((field) => fieldOf(entry.payload, field) !== undefined);
  return needs !== undefined || outside !== undefined || isBound || takesStock(entry);
}

/** Whether something comes off the shelves by it. */
export function takesStock({ kind, payload }: NewEntry): boolean {
  return kindOf(kind).takesStock?.(payload as never) ?? false;
}

/** Whether what it does must not be done before something new is seen here. */
function mayWantNew({ kind, payload, step }: Pick<Given, 'kind' | 'payload' | 'step'>, sheet: SheetFile): boolean {
  // A trial is pulled with the old ones.
  if ('trial' in payload && payload.trial === true) return false;
  return kindOf(kind).act === true && mayNeedNew(sheet, find(sheet.steps, step ?? undefined));
}

/** Why entries are not to be kept by what else the job holds, each after those before it in the batch. */
export function checkOnJob(
  fresh: readonly Given[],
  before: readonly AnyKeptEntry[],
  sheet: SheetFile,
  by: Pick<Held, 'role' | 'personId'>,
): Refusal | undefined {
  // What stands earlier in the same batch is there already for what comes after it.
  const entries = [...before];
  for (const given of fresh) {
    const held = heldBy(entries, sheet, by);
    const refusal =
      boundWrong(given, held) ??
      newWrong(given, held) ??
      holdWrong(given, held) ??
      carriedWrong(given, held) ??
      (mayBeEarly(given, sheet) ? clockWrong(given, held) : undefined) ??
      hidingWrong(given, held) ??
      (kindOf(given.kind).needs ?? []).map((rule) => rule(given as never, held)).find((found) => found !== undefined);
    if (refusal) return refusal;
    entries.push({ ...given, personId: by.personId } as unknown as AnyKeptEntry);
  }
  return undefined;
}

function heldBy(entries: readonly AnyKeptEntry[], sheet: SheetFile, { role, personId }: Pick<Held, 'role' | 'personId'>): Held {
  let state: JobState | undefined;
  return {
    entries,
    live: liveOf(entries),
    sheet,
    role,
    personId,
    mayMake: (kind) => mayMake(kind, role),
    entry: (id) => entries.find((entry) => entry.id === id),
    state: () => (state ??= jobState(sheet, entries)),
  };
}

/** Fields that name an entry that is not of this job, or of another kind. */
function boundWrong({ kind, payload }: Given, held: Held): Refusal | undefined {
  for (const [field, { to, allowed }] of Object.entries(kindOf(kind).binds ?? {}) as [string, Bound][]) {
    const id = fieldOf(payload, field) as string | undefined;
    const named: EntryKind | undefined = id === undefined ? undefined : held.entry(id)?.kind;
    if (id !== undefined && (named === undefined || !to.includes(named))) return wrong({ field: `payload.${field}`, given: id, allowed });
  }
  return undefined;
}

/** What takes the place of a part must be seen here before it goes in, or before there is no way back. */
function newWrong(given: Given, { live, sheet }: Held): Refusal | undefined {
  if (!mayWantNew(given, sheet)) return undefined;
  const needs = newMissing(sheet, find(sheet.steps, given.step ?? undefined), live);
  return needs && wrong({ field: 'step', given: given.step ?? '', allowed: newWords(needs, sheet) });
}

/** Whether what it does may come before its time: something must be ready first, or a clock still runs. */
function mayBeEarly({ kind, step }: Pick<Given, 'kind'> & { readonly step?: string | null }, sheet: SheetFile): boolean {
  return mayBeTimed(sheet, find(sheet.steps, step ?? undefined), kind);
}

/** What others stand on is not struck from under them. */
function carriedWrong({ kind, strikes }: Given, held: Held): Refusal | undefined {
  const struck = kind === 'strike' ? held.live.find(({ id }) => id === strikes) : undefined;
  const allowed = struck && kindOf(struck.kind).carries?.(struck as never, held.live);
  return allowed === undefined ? undefined : wrong({ field: 'strikes', given: strikes ?? '', allowed });
}

/** What hides a setting waits until that was read as it stays: afterwards nobody can. */
function hidingWrong({ kind, step: ref }: Given, held: Held): Refusal | undefined {
  const step = find(held.sheet.steps, ref ?? undefined);
  if (!step || !mayHide(held.sheet, step, kind)) return undefined;
  const bare = unreadUnder(held.state(), step);
  return bare && wrong({ field: 'step', given: step.ref, allowed: `hides ${bare.name}, which was not read as it stays: read it first` });
}

/** Whether a step before it may wait for somebody to look at it. */
function mayBeHeld({ kind, step }: Pick<NewEntry, 'kind' | 'step'>, sheet: SheetFile): boolean {
  return isWork(kind) && holdsBefore(sheet, step).length > 0;
}

/** What is done at a step waits until those before it that are done were looked at. */
function holdWrong({ kind, step }: Given, held: Held): Refusal | undefined {
  if (step === null || !mayBeHeld({ kind, step }, held.sheet)) return undefined;
  const refs = new Set(holdsBefore(held.sheet, step).map(({ ref }) => ref));
  const open = held.state().steps.find(({ step: { ref }, holds }) => holds && refs.has(ref));
  return open?.holds && wrong({ field: 'step', given: step, allowed: `waits: at “${open.step.title}” ${holdWords(open.holds)} first` });
}

function newWords(needs: NewFirst, sheet: SheetFile): string {
  switch (needs.why) {
    case 'no way back':
      return 'has no way back: what takes its place must be seen here first';
    case 'new each time':
      return `takes ${needs.of.name}, new each time: say first that the new ones are here`;
    case 'renewed':
      return `puts in what is new, and was not said to be here: ${needs.parts.map((part) => newPartWords(sheet, part)).join(', ')}`;
  }
}
