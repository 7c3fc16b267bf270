import {
  liveOf,
  outOfStores,
  storesMoves,
  withOneFound,
  workingFor,
  type AnyKeptEntry,
  type NewEntry,
  type OwedSettledPayload,
  type PersonView,
  type PinnedPayload,
  type ValueFoundPayload,
} from '@jubb/book';
import type { JobScope, Role, SheetFile, Tool } from '@jubb/sheet';
import { Inject, Injectable } from '@nestjs/common';
import type { Pool, PoolClient } from 'pg';
import { DataSource } from 'typeorm';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { ask, inTransaction, poolOf, type Statement } from '../database/data-source.js';
import { ToolRow } from '../database/entities.js';
import { OPEN_OWED } from '../jobs/owed.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { StoresService } from '../stores/stores.service.js';
import { StreamService } from '../stream/stream.service.js';
import { checkEntry, type CribTool } from './check-entry.js';
import { TELL_OF_NEW, mayWantNew } from './check-first.js';
import { checkGuarded } from './check-job.js';
import { contentHash, sentAs, type EntryContent } from './entry-hash.js';

/** Kinds whose keeping depends on what else the job holds: they are checked under its lock. */
const GUARDED = new Set<string>([
  'sign',
  'handed-over',
  'strike',
  'open-end-closed',
  'put-back',
  'seal-fitted',
  'mark-met',
  'went-in',
  'fitted',
  'wait-over',
  'pinned',
  'owed-settled',
  'stage',
  'accepted',
]);
/** How much of the job must be looked at before it is kept: all of it, or what new parts are here. */
type Guard = 'all' | 'new parts';

function guardOf(entries: readonly NewEntry[], sheet: SheetFile): Guard | undefined {
  const needsAll = (entry: NewEntry): boolean => {
    // A line out of an assembly speaks of that assembly's line, one shown on a photo of that photo.
    const speaksOfOther = entry.kind === 'came-off' && ('inside' in entry.payload || 'photo' in entry.payload);
    return GUARDED.has(entry.kind) || speaksOfOther || movesStores(entry);
  };
  if (entries.some(needsAll)) return 'all';
  // A pull comes every few seconds: it does not read the whole book of its job.
  return entries.some((entry) => mayWantNew(entry, sheet)) ? 'new parts' : undefined;
}
/** Whether something comes off the shelves by it. */
function movesStores({ kind, payload }: NewEntry): boolean {
  return (kind === 'replacement-here' && 'item' in payload) || (kind === 'worked' && 'taken' in payload);
}
/** Kinds that may change the sheet that a job goes by. */
const MOVES_SHEET = new Set<string>(['pinned', 'value-found', 'strike']);
/** Kinds that change what the list of jobs says of one. */
const MOVES_JOB = new Set<string>([...MOVES_SHEET, 'hold', 'hold-off']);

/** An instant as the wire and the hash have it: ISO, UTC, milliseconds. */
const iso = (column: string): string => `to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

export const ENTRY_COLUMNS = `id, job_id AS "jobId", seq, kind, payload, working, step, tool_id AS "toolId", strikes, person_id AS "personId",
  ${iso('taken_at')} AS "takenAt", ${iso('kept_at')} AS "keptAt", prev_hash AS "prevHash", hash`;

/** Entries of several jobs by their job, each in the order given. */
export function entriesByJob(entries: readonly AnyKeptEntry[]): ReadonlyMap<string, readonly AnyKeptEntry[]> {
  const map = new Map<string, AnyKeptEntry[]>();
  for (const entry of entries) {
    const list = map.get(entry.jobId);
    if (list) list.push(entry);
    else map.set(entry.jobId, [entry]);
  }
  return map;
}

@Injectable()
export class EntriesService {
  /** Which revision a job goes by, its scope and the figures found on it; forgotten when the job is told to have changed. */
  readonly #pins = new Map<string, Pin>();
  /** Counts what was forgotten: what was read before somebody forgot it is not remembered afterwards. */
  #forgotten = 0;

  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(StreamService) private readonly stream: StreamService,
    @Inject(StoresService) private readonly stores: StoresService,
  ) {
    stream.events.subscribe((event) => {
      if (event.type === 'job') this.#forget(event.jobId);
    });
    stream.missed.subscribe(() => this.#forgetAll());
  }

  ofJob(jobId: string): Promise<readonly AnyKeptEntry[]> {
    return ask(poolOf(this.dataSource), OF_JOB, jobId);
  }

  /** Those of a job that came after one, by its number. */
  after(jobId: string, seq: number): Promise<readonly AnyKeptEntry[]> {
    return ask(poolOf(this.dataSource), AFTER, jobId, seq);
  }

  /** Keeps entries in the order given: all or none; an id that is there already is the same entry. */
  async post(jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<readonly AnyKeptEntry[]> {
    try {
      return await this.#post(jobId, person, entries);
    } catch (error) {
      // Sent again after an answer that was lost, what is kept is kept, however the world moved since; only the rest is looked at.
      const kept = await this.#keptOf(jobId, person, entries);
      if (kept.size === 0) throw error;
      const rest = entries.filter(({ id }) => !kept.has(id.toLowerCase()));
      for (const one of rest.length === 0 ? [] : await this.#post(jobId, person, rest)) kept.set(one.id, one);
      return entries.flatMap(({ id }) => kept.get(id.toLowerCase()) ?? []);
    }
  }

  /** Those of the entries that are kept already, by id; refuses an id under which something else was sent. */
  async #keptOf(jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<Map<string, AnyKeptEntry>> {
    const ids = entries.map(({ id }) => id.toLowerCase());
    const rows = await ask<AnyKeptEntry>(poolOf(this.dataSource), BY_ID, ids);
    for (const row of rows) {
      const sent = entries.find(({ id }) => id.toLowerCase() === row.id)!;
      if (sentAs(row) !== sentAs({ ...sent, jobId: jobId.toLowerCase(), personId: person.id })) throw badId(row.id);
    }
    return new Map(rows.map((row) => [row.id, row]));
  }

  async #post(jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<readonly AnyKeptEntry[]> {
    const ready = await this.#ready(jobId, person, entries);
    const pool = poolOf(this.dataSource);
    const kept = ready.guard
      ? await inTransaction(pool, (client) => this.#keepGuarded(client, ready))
      : await keep(pool, jobId, person.id, ready.contents);
    this.#tell(jobId, entries, kept);
    return kept;
  }

  /**
   * Keeps entries as part of what the caller does in its transaction: all of it or nothing. What it
   * returns is called once that is committed, and tells everybody.
   */
  async postWithin(client: PoolClient, jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<() => void> {
    const ready = await this.#ready(jobId, person, entries);
    const kept = await this.#keepGuarded(client, ready);
    return () => this.#tell(jobId, entries, kept);
  }

  /** Checked and worked out, but for what the job itself must be looked at for. */
  async #ready(jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<Ready> {
    const pin = await this.#pinOf(jobId);
    const pinned = (await this.sheets.pinned(pin.revisionId, pin.scope)).file;
    const sheet = pin.found.reduce(withOneFound, pinned);
    const tools = await this.#toolsOf(entries);
    const problems = entries.flatMap((entry, index) => checkEntry(entry, `entries[${index}]`, { sheet, tools, person }));
    if (problems.length > 0) throw badInput(problems);
    const contents = entries.map((entry) => this.#content(entry, jobId, person.id, sheet, tools));
    return { jobId, personId: person.id, role: person.role, sheet, contents, guard: guardOf(entries, sheet) };
  }

  #tell(jobId: string, entries: readonly NewEntry[], kept: readonly AnyKeptEntry[]): void {
    this.stream.tell({ type: 'entries', jobId, seq: kept.at(-1)?.seq ?? 0 });
    if (entries.some((entry) => entry.kind === 'strike' || movesStores(entry))) this.stream.tell({ type: 'stores' });
    if (entries.some(({ kind }) => MOVES_SHEET.has(kind))) this.#forget(jobId);
    if (entries.some(({ kind }) => MOVES_JOB.has(kind))) this.stream.tell({ type: 'job', jobId });
  }

  #forget(jobId: string): void {
    this.#forgotten += 1;
    this.#pins.delete(jobId);
  }

  #forgetAll(): void {
    this.#forgotten += 1;
    this.#pins.clear();
  }

  /** Looks at the job under its lock before keeping. */
  async #keepGuarded(client: PoolClient, { jobId, personId, role, contents, sheet, guard }: Ready): Promise<readonly AnyKeptEntry[]> {
    await client.query('SELECT 1 FROM job WHERE id = $1 FOR NO KEY UPDATE', [jobId]);
    const before = await (guard === 'new parts'
      ? ask<AnyKeptEntry>(client, NEW_OF_JOB, jobId, TELL_OF_NEW)
      : ask<AnyKeptEntry>(client, OF_JOB, jobId));
    const fresh = contents.filter((content) => !before.some((entry) => entry.id === content.id));
    checkGuarded(fresh, before, sheet, role);
    for (const { kind, payload } of contents) {
      if (kind === 'pinned') await checkPin(client, jobId, payload as PinnedPayload);
      if (kind === 'owed-settled') await checkOwed(client, jobId, payload as OwedSettledPayload);
    }
    await this.#moveStores(client, fresh, before);
    return keep(client, jobId, personId, contents);
  }

  /** Takes off the shelves what goes in by these entries, and puts back what comes out again. */
  async #moveStores(client: PoolClient, fresh: readonly EntryContent[], before: readonly AnyKeptEntry[]): Promise<void> {
    const held = [...before];
    let out = outOfStores(liveOf(held));
    for (const content of fresh) {
      held.push(content as unknown as AnyKeptEntry);
      const then = outOfStores(liveOf(held));
      for (const { item, pieces } of storesMoves(out, then)) await this.stores.moveByEntry(client, content, item, pieces);
      out = then;
    }
  }

  #content(entry: NewEntry, jobId: string, personId: string, sheet: SheetFile, tools: ReadonlyMap<string, Tool>): EntryContent {
    return {
      id: entry.id.toLowerCase(),
      jobId: jobId.toLowerCase(),
      personId,
      kind: entry.kind,
      payload: entry.payload,
      working: workingFor(entry.kind, entry.payload, sheet, entry.toolId ? tools.get(entry.toolId) : undefined),
      step: entry.step ?? null,
      toolId: entry.toolId ?? null,
      strikes: entry.strikes ?? null,
      takenAt: new Date(entry.takenAt).toISOString(),
    };
  }

  async #pinOf(jobId: string): Promise<Pin> {
    const known = this.stream.isDeaf ? undefined : this.#pins.get(jobId);
    if (known !== undefined) return known;
    const forgotten = this.#forgotten;
    const [row] = await this.dataSource.query<Pin[]>(
      `SELECT sheet_revision_id AS "revisionId", scope,
              coalesce((SELECT json_agg(e.payload ORDER BY e.seq) FROM entry e WHERE e.job_id = job.id AND e.kind = 'value-found'
                AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)), '[]') AS found
       FROM job WHERE id = $1`,
      [jobId],
    );
    if (!row) throw notFound('job');
    // Told to forget while it was read: it may be from before, and is good for this once alone.
    if (this.#forgotten === forgotten && !this.stream.isDeaf) this.#pins.set(jobId, row);
    return row;
  }

  async #toolsOf(entries: readonly NewEntry[]): Promise<ReadonlyMap<string, CribTool>> {
    const ids = [...new Set(entries.flatMap((entry) => entry.toolId ?? []))];
    if (ids.length === 0) return new Map();
    const [rows, [shop]] = await Promise.all([
      this.dataSource.getRepository(ToolRow).createQueryBuilder('tool').whereInIds(ids).getMany(),
      this.dataSource.query<{ zone: string; foundOut: Readonly<Record<string, string>> }[]>(
        `SELECT s.zone, coalesce((SELECT json_object_agg(c.tool_id, c.at) FROM (
             SELECT tool_id, ${iso('max(kept_at)')} AS at FROM tool_check WHERE verdict = 'out' AND tool_id = ANY($1) GROUP BY tool_id
           ) c), '{}') AS "foundOut" FROM shop s`,
        [ids],
      ),
    ]);
    return new Map(rows.map((tool) => [tool.id, { ...tool, zone: shop?.zone ?? 'UTC', foundOutAt: shop?.foundOut[tool.id] }]));
  }
}

interface Ready {
  readonly jobId: string;
  readonly personId: string;
  readonly role: Role;
  readonly sheet: SheetFile;
  readonly contents: readonly EntryContent[];
  readonly guard: Guard | undefined;
}

interface Pin {
  readonly revisionId: string;
  readonly scope: JobScope | null;
  readonly found: readonly ValueFoundPayload[];
}

/** A job goes on only by an approved revision of its own sheet. */
async function checkPin(client: PoolClient, jobId: string, { revisionId, revision }: PinnedPayload): Promise<void> {
  const { rows } = await client.query(
    `SELECT 1 FROM job j JOIN sheet_revision s ON s.id = j.sheet_revision_id JOIN sheet_revision n ON n.key = s.key
     WHERE j.id = $1 AND n.id = $2 AND n.revision = $3 AND n.status = 'approved'`,
    [jobId, revisionId, revision],
  );
  if (rows.length === 0)
    throw badInput([{ field: 'payload.revisionId', given: revisionId, allowed: 'is not an approved revision of the sheet of this job' }]);
}

/** Only what is still owed is settled, and only by a job of the same machine. */
async function checkOwed(client: PoolClient, jobId: string, { owed }: OwedSettledPayload): Promise<void> {
  const { rows } = await client.query(
    `SELECT 1 FROM (${OPEN_OWED}) o WHERE o."entryId" = $2
       AND o."machineId" = (SELECT u.machine_id FROM job j JOIN unit u ON u.id = j.unit_id WHERE j.id = $1)`,
    [jobId, owed],
  );
  if (rows.length === 0) throw badInput([{ field: 'payload.owed', given: owed, allowed: 'is nothing that this machine still owes' }]);
}

const OF_JOB: Statement = { name: 'entries-of-job', text: `SELECT ${ENTRY_COLUMNS} FROM entry WHERE job_id = $1 ORDER BY seq` };
const AFTER: Statement = { name: 'entries-after', text: `SELECT ${ENTRY_COLUMNS} FROM entry WHERE job_id = $1 AND seq > $2 ORDER BY seq` };
const NEW_OF_JOB: Statement = {
  name: 'new-of-job',
  text: `SELECT ${ENTRY_COLUMNS} FROM entry WHERE job_id = $1 AND kind = ANY ($2::text[]) ORDER BY seq`,
};
const BY_ID: Statement = { name: 'entries-by-id', text: `SELECT ${ENTRY_COLUMNS} FROM entry WHERE id = ANY ($1::uuid[])` };
const KEEP: Statement = { name: 'keep-entries', text: `SELECT ${ENTRY_COLUMNS} FROM keep_entries($1, $2, $3)` };

function badId(id: string): ProblemError {
  return new ProblemError(409, 'An entry with this id was kept before with other content', {
    errors: [{ field: 'id', given: id, allowed: 'must be one that no other entry has' }],
  });
}

function keep(on: Pool | PoolClient, jobId: string, personId: string, contents: readonly EntryContent[]): Promise<readonly AnyKeptEntry[]> {
  const batch = contents.map((content) => ({ ...content, contentHash: contentHash(content) }));
  return ask(on, KEEP, jobId, personId, JSON.stringify(batch));
}
