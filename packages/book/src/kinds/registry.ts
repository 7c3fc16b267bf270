import type { Role, SheetFile, Tool } from '@jubb/sheet';
import { ROLES } from '@jubb/sheet';
import type { AnyKeptEntry, EntryKind, UsedWorking } from '../entries/kept.js';
import * as all from './all.js';
import type { Kind } from './define-kind.js';

type AnyKind = { readonly [K in EntryKind]: Kind<K> }[EntryKind];
type Listed = Extract<(typeof all)[keyof typeof all], { readonly id: EntryKind; readonly version: number }>['id'];

/** Does not compile for a kind that is defined, and not listed. */
export type EveryKindIsListed = Exclude<EntryKind, Listed> extends never ? true : ['not listed', Exclude<EntryKind, Listed>];
const listed: EveryKindIsListed = true;

function isKindOf(value: unknown): value is AnyKind {
  return typeof value === 'object' && value !== null && 'id' in value && 'words' in value;
}

/** Every kind of entry by its id. */
const KINDS: ReadonlyMap<string, AnyKind> = new Map(
  listed &&
    Object.values(all)
      .filter(isKindOf)
      .map((kind) => [kind.id, kind]),
);

export const ENTRY_KINDS = [...KINDS.keys()] as readonly EntryKind[];

/** What there is to know of a kind. Its functions take what belongs to it: an entry of it, or its payload. */
export function kindOf<K extends EntryKind>(id: K): Kind<K> {
  return KINDS.get(id) as unknown as Kind<K>;
}

export function rolesFor(kind: EntryKind): readonly Role[] {
  return kindOf(kind).who ?? ROLES;
}

export function mayMake(kind: EntryKind, role: Role): boolean {
  return rolesFor(kind).includes(role);
}

/** Kinds of which something is so. */
export function kindsThat(is: (kind: Kind<EntryKind>) => boolean): readonly EntryKind[] {
  return ENTRY_KINDS.filter((id) => is(kindOf<EntryKind>(id)));
}

/** One entry as a colleague would say it. */
export function entryWords(entry: AnyKeptEntry, sheet: SheetFile): string {
  return kindOf<EntryKind>(entry.kind).words(entry, sheet);
}

/**
 * The working that judges or advises an entry, run on the sheet's figures and the tool's
 * uncertainty. Page and server make it with this one function; the server's is the one kept.
 * Null when the kind has none, or when the working refuses (an end play of zero has no advice).
 */
export function workingFor(kind: EntryKind, payload: object, sheet: SheetFile, tool: Tool | undefined): UsedWorking | null {
  return kindOf(kind).working?.(payload as never, sheet, tool) ?? null;
}

/** A payload as its kind has it today, whatever version it was kept in. */
export function broughtUp(kind: Pick<Kind<EntryKind>, 'version' | 'up'>, version: number, payload: object): object {
  let at: Readonly<Record<string, unknown>> = { ...payload };
  for (let from = version; from < kind.version; from += 1) at = kind.up![from]!(at);
  return at;
}

/** An entry as it is read today. */
export function readUp(entry: AnyKeptEntry): AnyKeptEntry {
  const kind = kindOf<EntryKind>(entry.kind);
  const { version = 1 } = entry;
  return version === kind.version
    ? entry
    : ({ ...entry, version: kind.version, payload: broughtUp(kind, version, entry.payload) } as AnyKeptEntry);
}
