import type { Quantity } from '@jubb/core';
import type { Role, SheetFile, Tool } from '@jubb/sheet';
import type { AnyKeptEntry, EntryKind, KeptEntry, PayloadOf, UsedWorking } from '../entries/kept.js';
import type { JobState } from '../state.js';
import type { Within } from './report-sections.js';

/** What is wrong with one field of an entry: `payload.count`, `step`, `job` for the job as a whole. */
export interface Wrong {
  readonly field: string;
  readonly given?: string;
  readonly allowed: string;
}

/** Why an entry is not kept, by a code that never changes; the words are for people. */
export interface Refusal {
  readonly code: RefusalCode;
  readonly errors: readonly Wrong[];
  readonly detail?: string;
  /** What stands in its way. */
  readonly current?: unknown;
}

export const REFUSALS = ['bad-input', 'not-yours', 'struck-before', 'signed-already', 'not-to-be-signed', 'not-to-be-handed-over'] as const;
export type RefusalCode = (typeof REFUSALS)[number];

export function wrong(...errors: readonly Wrong[]): Refusal {
  return { code: 'bad-input', errors };
}

/** An entry as somebody wants to make it: checked by itself, and not kept yet. */
export interface Given<K extends EntryKind = EntryKind> {
  readonly id: string;
  readonly kind: K;
  readonly payload: PayloadOf<K>;
  readonly step: string | null;
  readonly strikes: string | null;
  /** ISO time, by the clock of who makes it. */
  readonly takenAt: string;
}

/** The job that it is to be kept on, as it stands before it. */
export interface Held {
  readonly entries: readonly AnyKeptEntry[];
  /** Those that stand. */
  readonly live: readonly AnyKeptEntry[];
  readonly sheet: SheetFile;
  readonly role: Role;
  /** Who makes it. */
  readonly personId: string;
  entry(id: string): AnyKeptEntry | undefined;
  mayMake(kind: EntryKind): boolean;
  /** What follows from all of them; worked out when it is asked for. */
  state(): JobState;
}

/** Something that must be so before an entry is made. */
export type Rule<K extends EntryKind> = (given: Given<K>, held: Held) => Refusal | undefined;

/** Lists of a sheet that an entry can point into. */
export type PointedList = 'fastenings' | 'limits' | 'joints' | 'settings' | 'seals' | 'fluids' | 'fits' | 'cautions' | 'parts' | 'steps';

/** Of which kinds the entry must be that a field names, and what is said of one that is not. */
export interface Bound {
  readonly to: readonly EntryKind[];
  readonly allowed: string;
}

/** What only the shop's own books can tell, and not the job: whether a revision is approved, whether something is still owed, whether a tool was made. */
export type Outside = 'approved-revision' | 'still-owed' | 'made-tool';

type Fields<K extends EntryKind, T> = { readonly [F in keyof PayloadOf<K>]?: T };

/** All there is to know of a kind of entry. */
export interface Kind<K extends EntryKind> {
  readonly id: K;
  /** From 1; goes up when its payload takes another shape. */
  readonly version: number;
  /** What its payload may hold. Lengths in mm, torques in N·m, angles in degrees, amounts in kg or L. */
  readonly payload: new () => PayloadOf<K>;
  /** Who may make and strike one; everybody where nothing is said. */
  readonly who?: readonly Role[];
  /** Who may make this very one: why somebody may not. */
  readonly takes?: (payload: PayloadOf<K>, role: Role) => string | undefined;
  /** Fields that name a line of the sheet, and the list that it is in. */
  readonly points?: Fields<K, PointedList>;
  /** Fields that name an entry of the same job. */
  readonly binds?: Fields<K, Bound>;
  /** What is read or pulled with its tool. */
  readonly reads?: (payload: PayloadOf<K>, sheet: SheetFile) => Quantity | undefined;
  /** What was read, or set, on its tool, in base units: no tool reads past its range. */
  readonly figures?: (payload: PayloadOf<K>) => readonly number[];
  /** Something is done to the unit by it: what must be here new for that is asked for first. */
  readonly act?: true;
  /** Something is taken apart by it: like an act, it takes the machine that its step names. */
  readonly hands?: true;
  /** It tells which new parts a job wants and has. */
  readonly tellsOfNew?: true;
  /** What is wrong with it by itself and by the sheet, once its fields are what they may be. */
  readonly check?: (given: Given<K>, sheet: SheetFile) => readonly Wrong[];
  /** What the job must hold before it. */
  readonly needs?: readonly Rule<K>[];
  readonly outside?: Outside;
  /** Why one that stands is not struck: others stand on it. */
  readonly carries?: (entry: KeptEntry<K>, live: readonly AnyKeptEntry[]) => string | undefined;
  /** Something comes off the shelves by it. */
  readonly takesStock?: (payload: PayloadOf<K>) => boolean;
  /** What changes beside the job's own book: the sheet that it goes by, what the list of jobs says of it, its stage. */
  readonly changes?: readonly ('sheet' | 'list' | 'stage')[];
  /** How it went is offered to later jobs of the same sheet. */
  readonly earlier?: true;
  /** It proposes something for the sheet. */
  readonly proposes?: true;
  /** Made by the way: not what somebody means by the last thing that they did. */
  readonly byTheWay?: true;
  /** What judges or advises it; null where nothing does. */
  readonly working?: (payload: PayloadOf<K>, sheet: SheetFile, tool: Tool | undefined) => UsedWorking | null;
  /** As a colleague would say it. */
  readonly words: (entry: KeptEntry<K>, sheet: SheetFile) => string;
  /** Where it stands in the customer's report; most do not. */
  readonly report?: readonly Within<K>[];
  /** From a version to the next: the payload as it is from then on. */
  readonly up?: Readonly<Record<number, (old: Readonly<Record<string, unknown>>) => Readonly<Record<string, unknown>>>>;
}

/**
 * One kind of entry, in one place. Throws where a version has no way up to the next: what was kept would not be read any more.
 */
export function defineKind<K extends EntryKind>(kind: Kind<K>): Kind<K> {
  for (let version = 1; version < kind.version; version += 1)
    if (!kind.up?.[version]) throw new Error(`"${kind.id}" has no way up from version ${version}`);
  return kind;
}
