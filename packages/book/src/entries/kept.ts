/** Kind of entry → its payload. Each kind adds its own line, in the file where it is defined. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type
export interface Payloads {}

export type EntryKind = keyof Payloads;
export type PayloadOf<K extends EntryKind> = Payloads[K];

/** A working as it was used: inputs, result and all. */
export interface UsedWorking {
  readonly id: string;
  readonly input: Readonly<Record<string, unknown>>;
  readonly output: Readonly<Record<string, unknown>>;
}

/** An entry as the server keeps it. */
export interface KeptEntry<K extends EntryKind = EntryKind> {
  readonly id: string;
  readonly jobId: string;
  readonly seq: number;
  readonly kind: K;
  /** In which version of its kind the payload is; 1 where nothing is said. */
  readonly version?: number;
  readonly payload: PayloadOf<K>;
  readonly step: string | null;
  readonly toolId: string | null;
  readonly strikes: string | null;
  readonly personId: string;
  readonly takenAt: string;
  readonly keptAt: string;
  /** The working that judged or advised, when the kind has one. */
  readonly working: UsedWorking | null;
  readonly prevHash: string;
  readonly hash: string;
}

export type AnyKeptEntry = { [K in EntryKind]: KeptEntry<K> }[EntryKind];

/** What stands of a job's entries: neither struck, nor a strike. */
export function liveOf(entries: readonly AnyKeptEntry[]): readonly AnyKeptEntry[] {
  const struck = new Set(entries.map(({ strikes }) => strikes));
  return entries.filter(({ id, kind }) => !struck.has(id) && kind !== 'strike');
}

export function isKind<K extends EntryKind>(kind: K): (entry: AnyKeptEntry) => entry is Extract<AnyKeptEntry, { kind: K }> {
  return (entry): entry is Extract<AnyKeptEntry, { kind: K }> => entry.kind === kind;
}
