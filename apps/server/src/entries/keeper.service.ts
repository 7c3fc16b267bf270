import { checkOnJob, kindsThat, liveOf, outOfStores, storesMoves, type AnyKeptEntry, type Given, type Guard } from '@jubb/book';
import type { Role, SheetFile } from '@jubb/sheet';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import { refused } from '../common/problem.js';
import { ask, inTransaction } from '../database/data-source.js';
import { StoresService } from '../stores/stores.service.js';
import { KEEP, LAST_SEQ, LOCK_JOB, OF_JOB, OF_KINDS, readEntries } from './entries.sql.js';
import { contentHash, type EntryContent } from './entry-hash.js';
import { KeepBatches, type Batch } from './keep-batches.js';
import { NewPartsMemory, type NewParts } from './new-parts.memory.js';
import { checkOutside } from './outside.js';

const TELL_OF_NEW = kindsThat(({ tellsOfNew }) => tellsOfNew === true);

/** Entries that are checked and worked out, but for what the job itself must be looked at for. */
export interface Ready {
  readonly jobId: string;
  readonly personId: string;
  readonly role: Role;
  readonly sheet: SheetFile;
  readonly contents: readonly EntryContent[];
  readonly guard: Guard | undefined;
}

/** Keeps entries that are ready: looks at their job under its lock where that is needed, moves the shelves, chains them. */
@Injectable()
export class KeeperService {
  readonly #newParts = new NewPartsMemory();
  readonly #batches: KeepBatches;

  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StoresService) private readonly stores: StoresService,
  ) {
    this.#batches = new KeepBatches(dataSource, TELL_OF_NEW);
  }

  async keep(ready: Ready): Promise<readonly AnyKeptEntry[]> {
    if (!ready.guard) return (await this.#batches.keep(batchOf(ready))) ?? keep(this.dataSource.manager, ready);
    const byNewParts = ready.guard === 'new parts' ? await this.#keepByNewParts(ready) : undefined;
    return byNewParts ?? inTransaction(this.dataSource, (manager) => this.keepWithin(manager, ready));
  }

  /** The same as part of what the caller does: looks at the job under its lock before keeping. */
  async keepWithin(manager: EntityManager, ready: Ready): Promise<readonly AnyKeptEntry[]> {
    const { jobId, contents, sheet, guard } = ready;
    await ask(manager, LOCK_JOB, jobId);
    const before = await (guard === 'new parts' ? readEntries(manager, OF_KINDS, jobId, TELL_OF_NEW) : readEntries(manager, OF_JOB, jobId));
    const fresh = contents.filter((content) => !before.some((entry) => entry.id === content.id));
    const refusal = checkOnJob(fresh as readonly Given[], before, sheet, ready);
    if (refusal) throw refused(refusal);
    for (const content of contents) await checkOutside(manager, jobId, content);
    await this.#moveStores(manager, fresh, before);
    return keep(manager, ready);
  }

  /** What is remembered of the new parts of a job is old. */
  forget(jobId: string): void {
    this.#newParts.forget(jobId);
  }

  /** Keeps by what is remembered of the job's new parts; undefined where the job is to be looked at under its lock. */
  async #keepByNewParts(ready: Ready): Promise<readonly AnyKeptEntry[] | undefined> {
    const { jobId, sheet, contents } = ready;
    const known = this.#newParts.of(jobId) ?? (await this.#readNewParts(jobId));
    // What is refused by something old may be right by now: it is looked at under the lock.
    if (checkOnJob(contents as readonly Given[], known.entries, sheet, ready)) return undefined;
    const kept = await this.#batches.keep({ ...batchOf(ready), upTo: known.upTo });
    // Nothing of the kind came up to here, or it would not have been kept.
    if (kept) this.#newParts.keep(jobId, { entries: known.entries, upTo: Math.max(known.upTo, kept.at(-1)?.seq ?? 0) });
    else this.#newParts.forget(jobId);
    return kept;
  }

  async #readNewParts(jobId: string): Promise<NewParts> {
    const { manager } = this.dataSource;
    // Before the entries: what comes in between is found out as newer.
    const [job] = await ask<{ lastSeq: number }>(manager, LAST_SEQ, jobId);
    return { entries: await readEntries(manager, OF_KINDS, jobId, TELL_OF_NEW), upTo: job?.lastSeq ?? 0 };
  }

  /** Takes off the shelves what goes in by these entries, and puts back what comes out again. */
  async #moveStores(manager: EntityManager, fresh: readonly EntryContent[], before: readonly AnyKeptEntry[]): Promise<void> {
    const held = [...before];
    let out = outOfStores(liveOf(held));
    for (const content of fresh) {
      held.push(content as unknown as AnyKeptEntry);
      const then = outOfStores(liveOf(held));
      for (const { item, pieces } of storesMoves(out, then)) await this.stores.moveByEntry(manager, content, item, pieces);
      out = then;
    }
  }
}

function keep(manager: EntityManager, ready: Ready): Promise<readonly AnyKeptEntry[]> {
  const { jobId, personId, entries } = batchOf(ready);
  return ask(manager, KEEP, jobId, personId, JSON.stringify(entries));
}

function batchOf({ jobId, personId, contents }: Ready): Batch {
  return { jobId, personId, entries: contents.map((content) => ({ ...content, contentHash: contentHash(content) })) };
}
