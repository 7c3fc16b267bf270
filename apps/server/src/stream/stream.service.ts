import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { ServerEvent } from '@jubb/contract';
import pg from 'pg';
import { Subject } from 'rxjs';
import { CONFIG } from '../tokens.js';
import type { Config } from '../config.js';

const RETRY_MS = 1000;

/** Hears what any server process tells by NOTIFY, on a connection of its own, for ever. */
@Injectable()
export class StreamService implements OnApplicationBootstrap, OnApplicationShutdown {
  readonly events = new Subject<ServerEvent>();
  readonly #log = new Logger('stream');
  #client: pg.Client | undefined;
  #stopped = false;
  #retry: NodeJS.Timeout | undefined;

  constructor(@Inject(CONFIG) private readonly config: Config) {}

  async onApplicationBootstrap(): Promise<void> {
    await this.#listen();
  }

  async onApplicationShutdown(): Promise<void> {
    this.#stopped = true;
    clearTimeout(this.#retry);
    this.events.complete();
    await this.#client?.end().catch(() => undefined);
  }

  async #listen(): Promise<void> {
    if (this.#stopped) return;
    const client = new pg.Client({ connectionString: this.config.databaseUrl, application_name: 'jubb-stream', keepAlive: true });
    this.#client = client;
    let lost = false;
    const again = (): void => {
      if (lost || this.#stopped) return;
      lost = true;
      client.end().catch(() => undefined);
      this.#retry = setTimeout(() => void this.#listen(), RETRY_MS);
    };
    client.on('error', again);
    client.on('end', again);
    client.on('notification', ({ payload }) => {
      if (payload) this.events.next(JSON.parse(payload) as ServerEvent);
    });
    try {
      await client.connect();
      await client.query('LISTEN jubb');
    } catch (error) {
      this.#log.warn(`database does not answer, trying again: ${error instanceof Error ? error.message : String(error)}`);
      again();
    }
  }
}
