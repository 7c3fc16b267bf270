import {
  checkEntry,
  checkOnJob,
  guardOf,
  kindOf,
  kindsThat,
  liveOf,
  outOfStores,
  readUp,
  broughtUp,
  storesMoves,
  takesStock,
  workingFor,
  type AnyKeptEntry,
  type CribTool,
  type EntryKind,
  type Given,
  type Guard,
  type NewEntry,
  type PersonView,
} from '@jubb/book';
import type { Role, SheetFile } from '@jubb/sheet';
import { Inject, Injectable } from '@nestjs/common';
import type { Pool, PoolClient } from 'pg';
import { DataSource } from 'typeorm';
import { ProblemError, refused } from '../common/problem.js';
import { ask, inTransaction, poolOf } from '../database/data-source.js';
import { StoresService } from '../stores/stores.service.js';
import { StreamService } from '../stream/stream.service.js';
import { AFTER, BY_ID, KEEP, KEEP_IF, LOCK_JOB, OF_JOB, OF_KINDS, TOOLS } from './entries.sql.js';
import { contentHash, sentAs, type EntryContent } from './entry-hash.js';
import { NewPartsMemory } from './new-parts.memory.js';
import { checkOutside } from './outside.js';
import { PinsService } from './pins.service.js';

/** What the database says where something came since. */
const SOMETHING_CAME = 'JB412';
const TELL_OF_NEW = kindsThat(({ tellsOfNew }) => tellsOfNew === true);

/** Checked and worked out, but for what the job itself must be looked at for. */
interface Ready {
  readonly jobId: string;
  readonly personId: string;
  readonly role: Role;
  readonly sheet: SheetFile;
  readonly contents: readonly EntryContent[];
  readonly guard: Guard | undefined;
}

@Injectable()
export class EntriesService {
  readonly #newParts = new NewPartsMemory();

  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(PinsService) private readonly pins: PinsService,
    @Inject(StreamService) private readonly stream: StreamService,
    @Inject(StoresService) private readonly stores: StoresService,
  ) {}

  ofJob(jobId: string): Promise<readonly AnyKeptEntry[]> {
    return read(poolOf(this.dataSource), OF_JOB, jobId);
  }

  /** As the database holds them, each in the version that it was kept in: what the hashes vouch for. */
  asKept(jobId: string): Promise<readonly AnyKeptEntry[]> {
    return ask(poolOf(this.dataSource), OF_JOB, jobId);
  }

  /** Those of a job that came after one, by its number. */
  after(jobId: string, seq: number): Promise<readonly AnyKeptEntry[]> {
    return read(poolOf(this.dataSource), AFTER, jobId, seq);
  }

  /** Keeps entries in the order given: all or none; an id that is there already is the same entry. */
  async post(jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<readonly AnyKeptEntry[]> {
    const today = entries.map(asToday);
    try {
      return await this.#post(jobId, person, today);
    } catch (error) {
      // Sent again after an answer that was lost, what is kept is kept, however the world moved since; only the rest is looked at.
      const kept = await this.#keptOf(jobId, person, today);
      if (kept.size === 0) throw error;
      const rest = today.filter(({ id }) => !kept.has(id.toLowerCase()));
      for (const one of rest.length === 0 ? [] : await this.#post(jobId, person, rest)) kept.set(one.id, one);
      return today.flatMap(({ id }) => kept.get(id.toLowerCase()) ?? []);
    }
  }

  /**
   * Keeps entries as part of what the caller does in its transaction: all of it or nothing. What it
   * returns is called once that is committed, and tells everybody.
   */
  async postWithin(client: PoolClient, jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<() => void> {
    const today = entries.map(asToday);
    const kept = await this.#keepGuarded(client, await this.#ready(jobId, person, today));
    return () => this.#tell(jobId, today, kept);
  }

  async #post(jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<readonly AnyKeptEntry[]> {
    const ready = await this.#ready(jobId, person, entries);
    const kept = await this.#keep(ready);
    this.#tell(jobId, entries, kept);
    return kept;
  }

  /** Those of the entries that are kept already, by id; refuses an id under which something else was sent. */
  async #keptOf(jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<Map<string, AnyKeptEntry>> {
    const rows = await read(
      poolOf(this.dataSource),
      BY_ID,
      entries.map(({ id }) => id.toLowerCase()),
    );
    for (const row of rows) {
      const sent = entries.find(({ id }) => id.toLowerCase() === row.id)!;
      if (sentAs(row) !== sentAs({ ...sent, jobId: jobId.toLowerCase(), personId: person.id }))
        throw new ProblemError('entry-id-taken', {
          errors: [{ field: 'id', given: row.id, allowed: 'must be one that no other entry has' }],
        });
    }
    return new Map(rows.map((row) => [row.id, row]));
  }

  async #ready(jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<Ready> {
    const [sheet, tools] = await Promise.all([this.pins.sheetOf(jobId), this.#toolsOf(entries)]);
    const { id: personId, role } = person;
    const by = { sheet, tools, role, now: Date.now() };
    const refusals = entries.flatMap((entry, at) => {
      const refusal = checkEntry(entry, by);
      return refusal ? [{ ...refusal, errors: refusal.errors.map((one) => ({ ...one, field: `entries[${at}].${one.field}` })) }] : [];
    });
    const [first] = refusals;
    const graver = refusals.find(({ code }) => code !== 'bad-input');
    if (first) throw refused(graver ?? { ...first, errors: refusals.flatMap(({ errors }) => errors) });
    const contents = entries.map((entry) => contentOf(entry, { jobId, personId, sheet, tools }));
    return { jobId, personId, role, sheet, contents, guard: guardOf(entries, sheet) };
  }

  #tell(jobId: string, entries: readonly NewEntry[], kept: readonly AnyKeptEntry[]): void {
    this.stream.tell({ type: 'entries', jobId, seq: kept.at(-1)?.seq ?? 0 });
    const changes = new Set(entries.flatMap(({ kind }) => kindOf(kind).changes ?? []));
    if (entries.some((entry) => entry.kind === 'strike' || takesStock(entry))) this.stream.tell({ type: 'stores' });
    if (changes.has('sheet')) this.pins.forget(jobId);
    if (entries.some(({ kind }) => kindOf(kind).tellsOfNew)) this.#newParts.forget(jobId);
    if (changes.size > 0) this.stream.tell({ type: 'job', jobId });
  }

  async #keep(ready: Ready): Promise<readonly AnyKeptEntry[]> {
    const pool = poolOf(this.dataSource);
    if (!ready.guard) return keep(pool, ready);
    const byNewParts = ready.guard === 'new parts' ? await this.#keepByNewParts(ready) : undefined;
    return byNewParts ?? inTransaction(pool, (client) => this.#keepGuarded(client, ready));
  }

  /** Keeps by what is remembered of the job's new parts, in one round trip; undefined where something newer is there. */
  async #keepByNewParts(ready: Ready): Promise<readonly AnyKeptEntry[] | undefined> {
    const { jobId, personId, role, sheet, contents } = ready;
    const pool = poolOf(this.dataSource);
    const before = this.#newParts.of(jobId) ?? (await read(pool, OF_KINDS, jobId, TELL_OF_NEW));
    this.#newParts.keep(jobId, before);
    // What is refused by something old may be right by now: it is looked at under the lock.
    if (checkOnJob(contents as readonly Given[], before, sheet, role)) return undefined;
    try {
      return await ask<AnyKeptEntry>(pool, KEEP_IF, jobId, personId, batchOf(contents), TELL_OF_NEW, before.at(-1)?.seq ?? 0);
    } catch (error) {
      if ((error as { code?: unknown }).code !== SOMETHING_CAME) throw error;
      this.#newParts.forget(jobId);
      return undefined;
    }
  }

  /** Looks at the job under its lock before keeping. */
  async #keepGuarded(client: PoolClient, ready: Ready): Promise<readonly AnyKeptEntry[]> {
    const { jobId, role, contents, sheet, guard } = ready;
    await ask(client, LOCK_JOB, jobId);
    const before = await (guard === 'new parts' ? read(client, OF_KINDS, jobId, TELL_OF_NEW) : read(client, OF_JOB, jobId));
    const fresh = contents.filter((content) => !before.some((entry) => entry.id === content.id));
    const refusal = checkOnJob(fresh as readonly Given[], before, sheet, role);
    if (refusal) throw refused(refusal);
    for (const content of contents) await checkOutside(client, jobId, content);
    await this.#moveStores(client, fresh, before);
    return keep(client, ready);
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

  async #toolsOf(entries: readonly NewEntry[]): Promise<ReadonlyMap<string, CribTool>> {
    const ids = [...new Set(entries.flatMap(({ toolId }) => toolId ?? []))];
    const rows = ids.length === 0 ? [] : await ask<CribTool>(poolOf(this.dataSource), TOOLS, ids);
    return new Map(rows.map(({ foundOutAt, ...tool }) => [tool.id, { ...tool, foundOutAt: foundOutAt ?? undefined }]));
  }
}

/** An entry of an older tablet as its kind has it today. */
function asToday(entry: NewEntry): NewEntry {
  const { version = 1, ...rest } = entry;
  const kind = kindOf<EntryKind>(entry.kind);
  return version >= kind.version ? rest : { ...rest, payload: broughtUp(kind, version, entry.payload) };
}

interface Making {
  readonly jobId: string;
  readonly personId: string;
  readonly sheet: SheetFile;
  readonly tools: ReadonlyMap<string, CribTool>;
}

function contentOf(entry: NewEntry, { jobId, personId, sheet, tools }: Making): EntryContent {
  const { version } = kindOf(entry.kind);
  return {
    id: entry.id.toLowerCase(),
    jobId: jobId.toLowerCase(),
    personId,
    kind: entry.kind,
    ...(version === 1 ? {} : { version }),
    payload: entry.payload,
    working: workingFor(entry.kind, entry.payload, sheet, entry.toolId ? tools.get(entry.toolId) : undefined),
    step: entry.step ?? null,
    toolId: entry.toolId ?? null,
    strikes: entry.strikes ?? null,
    takenAt: new Date(entry.takenAt).toISOString(),
  };
}

async function read(on: Pool | PoolClient, ...asked: [Parameters<typeof ask>[1], ...unknown[]]): Promise<readonly AnyKeptEntry[]> {
  return (await ask<AnyKeptEntry>(on, ...asked)).map(readUp);
}

function keep(on: Pool | PoolClient, { jobId, personId, contents }: Ready): Promise<readonly AnyKeptEntry[]> {
  return ask(on, KEEP, jobId, personId, batchOf(contents));
}

function batchOf(contents: readonly EntryContent[]): string {
  return JSON.stringify(contents.map((content) => ({ ...content, contentHash: contentHash(content) })));
}
