import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { PoolClient } from 'pg';
import { DataSource } from 'typeorm';
import { poolOf } from '../database/data-source.js';

/** What can leave the shop. Letters to customers lie in their own table, which the stand-in for the post shows. */
export type OutKind = 'order';

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

  async put(client: PoolClient, kind: OutKind, reference: string): Promise<void> {
    await client.query('INSERT INTO outbox (kind, reference) VALUES ($1, $2) ON CONFLICT DO NOTHING', [kind, reference]);
  }

  /** It is out and answered; in the transaction that keeps the answer. */
  async went(client: PoolClient, kind: OutKind, reference: string): Promise<void> {
    await client.query('UPDATE outbox SET went_at = now() WHERE kind = $1 AND reference = $2 AND went_at IS NULL', [kind, reference]);
  }

  /** Sends one now, whether it is due or not, for somebody who waits for it. */
  async send(kind: OutKind, reference: string): Promise<void> {
    const taken = await this.#take('kind = $3 AND reference = $4', kind, reference);
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
      for (const { kind, reference } of await this.#take('next_at <= now()'))
        await this.#ways
          .get(kind)?.(reference)
          .catch((error: unknown) => this.#warn(`${kind} ${reference} did not go out`, error));
    } catch (error) {
      this.#warn('what is to leave the shop could not be looked for', error);
    }
  }

  /** Those that are not out yet, each put off until its next try: another process leaves them alone that long. */
  async #take(which: string, ...values: readonly string[]): Promise<readonly { readonly kind: OutKind; readonly reference: string }[]> {
    const { rows } = await poolOf(this.dataSource).query<{ kind: OutKind; reference: string }>(
      `UPDATE outbox o SET tries = tries + 1, next_at = now() + least($2, $1 * power(2, least(tries, 12))) * interval '1 second'
       FROM (SELECT kind, reference FROM outbox WHERE went_at IS NULL AND ${which} ORDER BY next_at LIMIT 20 FOR UPDATE SKIP LOCKED) due
       WHERE o.kind = due.kind AND o.reference = due.reference RETURNING o.kind, o.reference`,
      [FIRST_WAIT_S, LONGEST_WAIT_S, ...values],
    );
    return rows;
  }

  #warn(what: string, error: unknown): void {
    this.#log.warn(`${what}: ${error instanceof Error ? error.message : String(error)}`);
  }
}
