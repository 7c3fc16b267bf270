import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { DataSource, IsNull, type EntityManager } from 'typeorm';
import { ask, type Statement } from '../database/data-source.js';
import { OutboxRow } from '../database/entities/index.js';
import { TAKE_DUE, TAKE_ONE } from './outbox.sql.js';

/** What can leave the shop. Letters to customers lie in their own table, which the stand-in for the post shows. */
export type OutKind = OutboxRow['kind'];

/** How often it is looked for what is due, and how long the first failure waits; each next one twice as long, to an hour. */
const LOOK_MS = 5000;
const FIRST_WAIT_S = 30;
const LONGEST_WAIT_S = 3600;

/**
 * What leaves the shop: put down in the transaction that decides it, sent afterwards until the other side has answered.
 * It may be sent more than once; whoever takes it knows it again by its reference.
 */
@Injectable()
export class OutboxService implements OnApplicationBootstrap, OnApplicationShutdown {
  readonly #log = new Logger('outbox');
  readonly #ways = new Map<OutKind, (reference: string) => Promise<void>>();
  #looking: NodeJS.Timeout | undefined;

  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  /** How one kind goes out; it ends with `went`, or throws. */
  goesBy(kind: OutKind, way: (reference: string) => Promise<void>): void {
    this.#ways.set(kind, way);
  }

  async put(manager: EntityManager, kind: OutKind, reference: string): Promise<void> {
    await manager.createQueryBuilder().insert().into(OutboxRow).values({ kind, reference }).orIgnore().execute();
  }

  /** It is out and answered; in the transaction that keeps the answer. */
  async went(manager: EntityManager, kind: OutKind, reference: string): Promise<void> {
    await manager.update(OutboxRow, { kind, reference, wentAt: IsNull() }, { wentAt: () => 'now()' });
  }

  /** Sends one now, whether it is due or not, for somebody who waits for it. */
  async send(kind: OutKind, reference: string): Promise<void> {
    const taken = await this.#take(TAKE_ONE, kind, reference);
    if (taken.length > 0) await this.#ways.get(kind)?.(reference);
  }

  onApplicationBootstrap(): void {
    const look = (): void => {
      this.#looking = setTimeout(() => void this.#sendDue().finally(look), LOOK_MS).unref();
    };
    look();
  }

  onApplicationShutdown(): void {
    clearTimeout(this.#looking);
  }

  async #sendDue(): Promise<void> {
    try {
      for (const { kind, reference } of await this.#take(TAKE_DUE))
        await this.#ways
          .get(kind)?.(reference)
          .catch((error: unknown) => this.#warn(`${kind} ${reference} did not go out`, error));
    } catch (error) {
      this.#warn('what is to leave the shop could not be looked for', error);
    }
  }

  /** Those that are not out yet, each put off until its next try: another process leaves them alone that long. */
  #take(which: Statement, ...values: readonly string[]): Promise<readonly Pick<OutboxRow, 'kind' | 'reference'>[]> {
    return ask(this.dataSource.manager, which, FIRST_WAIT_S, LONGEST_WAIT_S, ...values);
  }

  #warn(what: string, error: unknown): void {
    this.#log.warn(`${what}: ${error instanceof Error ? error.message : String(error)}`);
  }
}
