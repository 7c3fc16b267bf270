import type { EntryKind, NewEntry, UsedWorking } from '@jubb/book';
import type { ChainView } from '@jubb/wire';
import { createHash } from 'node:crypto';
import { canonicalJson } from '../common/canonical.js';

/** Everything of an entry that its hash vouches for. */
export interface EntryContent {
  readonly id: string;
  readonly jobId: string;
  readonly personId: string;
  readonly kind: EntryKind;
  /** Left out while it is 1: what was kept before kinds had versions has the hash that it had. */
  readonly version?: number;
  readonly payload: object;
  readonly working: UsedWorking | null;
  readonly step: string | null;
  readonly toolId: string | null;
  readonly strikes: string | null;
  readonly takenAt: string;
}

/** What is kept of an entry as it was sent, by the version that its kind has today. */
export function contentWith(
  entry: NewEntry,
  { jobId, personId, working, version }: Pick<EntryContent, 'jobId' | 'personId' | 'working'> & { readonly version: number },
): EntryContent {
  return {
    id: entry.id.toLowerCase(),
    jobId: jobId.toLowerCase(),
    personId,
    kind: entry.kind,
    ...(version === 1 ? {} : { version }),
    payload: entry.payload,
    working,
    step: entry.step ?? null,
    toolId: entry.toolId ?? null,
    strikes: entry.strikes ?? null,
    takenAt: new Date(entry.takenAt).toISOString(),
  };
}

/** SHA-256 of the canonical JSON (RFC 8785) of the content. */
export function contentHash(content: EntryContent): string {
  return hashOf(canonicalOf(content));
}

/**
 * The canonical JSON itself: members by their names, put together by hand, so that a working that many entries share is
 * written once.
 */
export function canonicalOf({
  id,
  jobId,
  kind,
  payload,
  personId,
  step,
  strikes,
  takenAt,
  toolId,
  version,
  working,
}: EntryContent): string {
  const plain = (name: string, value: unknown): string => `"${name}":${JSON.stringify(value)}`;
  const members = [
    plain('id', id),
    plain('jobId', jobId),
    plain('kind', kind),
    `"payload":${canonicalJson(payload)}`,
    plain('personId', personId),
    plain('step', step),
    plain('strikes', strikes),
    plain('takenAt', takenAt),
    plain('toolId', toolId),
    ...(version === undefined ? [] : [plain('version', version)]),
    `"working":${workingText(working)}`,
  ];
  return `{${members.join(',')}}`;
}

const WORKINGS = new WeakMap<UsedWorking, string>();

function workingText(working: UsedWorking | null): string {
  if (working === null) return 'null';
  const text = WORKINGS.get(working) ?? canonicalJson(working);
  WORKINGS.set(working, text);
  return text;
}

export function hashOf(text: string): string {
  return createHash('sha256').update(text).digest('hex');
}

/** What a client sent of an entry; what was worked out from it is not its own. */
interface Sent {
  readonly id: string;
  readonly jobId: string;
  readonly personId: string;
  readonly kind: string;
  readonly payload: object;
  readonly step?: string | null;
  readonly toolId?: string | null;
  readonly strikes?: string | null;
  readonly takenAt: string;
}

/** As canonical JSON (RFC 8785): two that are alike were sent as the same entry. */
export function sentAs({ id, jobId, personId, kind, payload, step, toolId, strikes, takenAt }: Sent): string {
  const instant = new Date(takenAt).toISOString();
  const sent = { id: id.toLowerCase(), jobId, personId, kind, payload, takenAt: instant };
  return canonicalJson({ ...sent, step: step ?? null, toolId: toolId?.toLowerCase() ?? null, strikes: strikes?.toLowerCase() ?? null });
}

/** The same sum as `keep_entries` makes in the database. */
export function chainHash(prevHash: string, seq: number, content: string): string {
  return hashOf(`${prevHash}:${seq}:${content}`);
}

interface ChainRow extends EntryContent {
  readonly seq: number;
  readonly prevHash: string;
  readonly hash: string;
}

/** Follows the chain of one job from its first entry. */
export function verifyChain(rows: readonly ChainRow[]): ChainView {
  let before = '';
  for (const [index, row] of rows.entries()) {
    const { id, jobId, personId, kind, version = 1, payload, working, step, toolId, strikes, takenAt } = row;
    const versioned = version === 1 ? {} : { version };
    const content = contentHash({ id, jobId, personId, kind, ...versioned, payload, working, step, toolId, strikes, takenAt });
    const follows = row.seq === index + 1 && row.prevHash === before && row.hash === chainHash(before, row.seq, content);
    if (!follows) return { whole: false, entries: rows.length, hash: rows.at(-1)?.hash ?? '', brokenAt: row.seq };
    before = row.hash;
  }
  return { whole: true, entries: rows.length, hash: before, brokenAt: null };
}
