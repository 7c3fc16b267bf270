import {
  benchRefusal,
  checkEntry,
  guardOf,
  licenceRefusal,
  needsBench,
  kindOf,
  kindsThat,
  takesStock,
  type AnyKeptEntry,
  type CribTool,
  type NewEntry,
  type PersonView,
} from '@jubb/book';
import { dayIn, type SheetFile } from '@jubb/sheet';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import { ProblemError, badInput, refused } from '../common/problem.js';
import { shopDay } from '../common/shop-day.js';
import { ask } from '../database/data-source.js';
import { LicenceRow } from '../database/entities/index.js';
import { StreamService } from '../stream/stream.service.js';
import { AFTER, BY_ID, JSON_OF_JOB, OF_JOB, TOOLS, readEntries } from './entries.sql.js';
import { asToday, contentOf } from './entry-content.js';
import { sentAs } from './entry-hash.js';
import { KeeperService, type Ready } from './keeper.service.js';
import { PinsService } from './pins.service.js';
import { BenchesService } from '../benches/benches.service.js';

/** The newest version of each kind. */
const VERSIONS = JSON.stringify(Object.fromEntries(kindsThat(() => true).map((kind) => [kind, kindOf(kind).version])));

@Injectable()
export class EntriesService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(PinsService) private readonly pins: PinsService,
    @Inject(StreamService) private readonly stream: StreamService,
    @Inject(KeeperService) private readonly keeper: KeeperService,
    @Inject(BenchesService) private readonly benches: BenchesService,
  ) {}

  ofJob(jobId: string): Promise<readonly AnyKeptEntry[]> {
    return readEntries(this.dataSource.manager, OF_JOB, jobId);
  }

  /** The same as JSON that the database made; taken apart only where one is of an older version of its kind. */
  async jsonOfJob(jobId: string): Promise<string> {
    const [found] = await ask<{ json: string; isOld: boolean }>(this.dataSource.manager, JSON_OF_JOB, jobId, VERSIONS);
    return found?.isOld ? JSON.stringify(await this.ofJob(jobId)) : (found?.json ?? '[]');
  }

  /** As the database holds them, each in the version that it was kept in: what the hashes vouch for. */
  asKept(jobId: string): Promise<readonly AnyKeptEntry[]> {
    return ask(this.dataSource.manager, OF_JOB, jobId);
  }

  /** Those of a job that came after one, by its number. */
  after(jobId: string, seq: number): Promise<readonly AnyKeptEntry[]> {
    return readEntries(this.dataSource.manager, AFTER, jobId, seq);
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
  async postWithin(manager: EntityManager, jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<() => void> {
    const today = entries.map(asToday);
    const kept = await this.keeper.keepWithin(manager, await this.#ready(manager, jobId, person, today));
    return () => this.#tell(jobId, today, kept);
  }

  async #post(jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<readonly AnyKeptEntry[]> {
    const ready = await this.#ready(this.dataSource.manager, jobId, person, entries);
    const kept = await this.keeper.keep(ready);
    this.#tell(jobId, entries, kept);
    return kept;
  }

  /** Those of the entries that are kept already, by id; refuses an id under which something else was sent. */
  async #keptOf(jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<Map<string, AnyKeptEntry>> {
    const rows = await readEntries(
      this.dataSource.manager,
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

  async #ready(manager: EntityManager, jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<Ready> {
    const sheet = await this.pins.sheetOf(manager, jobId);
    const tools = await toolsOf(manager, entries);
    const { id: personId, role } = person;
    const by = { sheet, tools, role, now: Date.now() };
    const refusals = entries.flatMap((entry, at) => {
      const refusal = checkEntry(entry, by);
      return refusal ? [{ ...refusal, errors: refusal.errors.map((one) => ({ ...one, field: `entries[${at}].${one.field}` })) }] : [];
    });
    const [first] = refusals;
    const graver = refusals.find(({ code }) => code !== 'bad-input');
    if (first) throw refused(graver ?? { ...first, errors: refusals.flatMap(({ errors }) => errors) });
    await this.#certified(manager, person, entries, sheet);
    await this.#atBench(manager, person, entries, sheet);
    const contents = entries.map((entry) => contentOf(entry, { jobId, personId, sheet, tools }));
    return { jobId, personId, role, sheet, contents, guard: guardOf(entries, sheet) };
  }

  /** Refuses a certified person whose certificate is over; most entries ask for none. */
  async #certified(manager: EntityManager, { id: personId }: PersonView, entries: readonly NewEntry[], sheet: SheetFile): Promise<void> {
    const held = entries.map((entry, at) => ({ entry, at })).filter(({ entry }) => entry.kind === 'hold-met');
    if (held.length === 0) return;
    const [licences, { zone }] = await Promise.all([manager.findBy(LicenceRow, { personId }), shopDay({ manager })]);
    const errors = held.flatMap(({ entry: { step, takenAt }, at }) => {
      const allowed = licenceRefusal(sheet, step, licences, dayIn(zone, Math.min(Date.parse(takenAt), Date.now())));
      return allowed === undefined ? [] : [{ field: `entries[${at}].payload.certificate`, allowed }];
    });
    if (errors.length > 0) throw badInput(errors);
  }

  /** Refuses work at a step whose machine this person may not use, or which is out of use; most steps need none. */
  async #atBench(manager: EntityManager, { id: personId }: PersonView, entries: readonly NewEntry[], sheet: SheetFile): Promise<void> {
    const needing = entries.map((entry, at) => ({ entry, at })).filter(({ entry }) => needsBench(entry, sheet));
    if (needing.length === 0) return;
    const benches = await this.benches.all(manager);
    const errors = needing.flatMap(({ entry: { step }, at }) => {
      const allowed = benchRefusal(sheet, step, benches, personId);
      return allowed === undefined ? [] : [{ field: `entries[${at}].step`, given: step!, allowed }];
    });
    if (errors.length > 0) throw badInput(errors);
  }

  #tell(jobId: string, entries: readonly NewEntry[], kept: readonly AnyKeptEntry[]): void {
    this.stream.tell({ type: 'entries', jobId, seq: kept.at(-1)?.seq ?? 0 });
    const changes = new Set(entries.flatMap(({ kind }) => kindOf(kind).changes ?? []));
    if (entries.some((entry) => entry.kind === 'strike' || takesStock(entry))) this.stream.tell({ type: 'stores' });
    if (changes.has('sheet')) this.pins.forget(jobId);
    if (entries.some(({ kind }) => kindOf(kind).tellsOfNew)) this.keeper.forget(jobId);
    if (changes.size > 0) this.stream.tell({ type: 'job', jobId });
  }
}

async function toolsOf(manager: EntityManager, entries: readonly NewEntry[]): Promise<ReadonlyMap<string, CribTool>> {
  const ids = [...new Set(entries.flatMap(({ toolId }) => toolId ?? []))];
  const rows = ids.length === 0 ? [] : await ask<CribTool>(manager, TOOLS, ids);
  return new Map(rows.map(({ foundOutAt, ...tool }) => [tool.id, { ...tool, foundOutAt: foundOutAt ?? undefined }]));
}
