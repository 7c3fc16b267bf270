import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { LiveLine, ServerEvent } from '@jubb/contract';
import pg from 'pg';
import { Subject } from 'rxjs';
import { DataSource } from 'typeorm';
import { poolOf } from '../database/data-source.js';
import { CONFIG } from '../tokens.js';
import type { Config } from '../config.js';

const RETRY_MS = 1000;
/** How long changes are gathered before they are told: a NOTIFY holds up every commit beside it. */
const GATHER_MS = 50;

/** Tells what changed to every server process by NOTIFY, and hears it on a connection of its own, for ever. */
@Injectable()
export class StreamService implements OnApplicationBootstrap, OnApplicationShutdown {
  readonly events = new Subject<ServerEvent>();
  readonly #log = new Logger('stream');
  #client: pg.Client | undefined;
  #stopped = false;
  #retry: NodeJS.Timeout | undefined;
  /** Told next, the newest of each kind and job. */
  readonly #told = new Map<string, ServerEvent>();
  /** Lines of instruments told next: they are not gathered into one, since each may be one to take. */
  #lines: LiveLine[] = [];
  #telling: NodeJS.Timeout | undefined;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(DataSource) private readonly dataSource: DataSource,
  ) {}

  /** To be called when the change is committed; pages hear of it shortly after. */
  tell(event: ServerEvent): void {
    this.#told.set(`${event.type} ${'jobId' in event ? event.jobId : 'file' in event ? event.file : ''}`, event);
    this.#tellSoon();
  }

  tellLines(lines: readonly LiveLine[]): void {
    this.#lines.push(...lines);
    this.#tellSoon();
  }

  #tellSoon(): void {
    this.#telling ??= setTimeout(() => void this.#tellAll(), GATHER_MS);
  }

  async #tellAll(): Promise<void> {
    this.#telling = undefined;
    const lines = notifiable(this.#lines).map((part): ServerEvent => ({ type: 'lines', lines: part }));
    const events = [...this.#told.values(), ...lines].map((event) => JSON.stringify(event));
    this.#told.clear();
    this.#lines = [];
    try {
      await poolOf(this.dataSource).query("SELECT pg_notify('jubb', event) FROM unnest($1::text[]) AS event", [events]);
    } catch (error) {
      // Whoever lost the database lost its listener too, and asks for everything anew on the next link.
      this.#log.warn(`changes could not be told: ${error instanceof Error ? error.message : String(error)}`);
    }
  }

  async onApplicationBootstrap(): Promise<void> {
    await this.#listen();
  }

  async onApplicationShutdown(): Promise<void> {
    this.#stopped = true;
    clearTimeout(this.#retry);
    clearTimeout(this.#telling);
    if (this.#told.size > 0 || this.#lines.length > 0) await this.#tellAll();
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

/** Some 350 letters each; a NOTIFY carries 8 000 at most (PostgreSQL manual, NOTIFY). */
const LINES_IN_NOTIFY = 12;

/** In parts that a NOTIFY can carry; of an instrument's passing lines only the last, since the others are past already. */
function notifiable(lines: readonly LiveLine[]): readonly (readonly LiveLine[])[] {
  const last = new Map(lines.map((line) => [line.instrumentId, line.n]));
  const wanted = lines.filter(({ taken, instrumentId, n }) => taken || last.get(instrumentId) === n);
  return Array.from({ length: Math.ceil(wanted.length / LINES_IN_NOTIFY) }, (_, part) =>
    wanted.slice(part * LINES_IN_NOTIFY, (part + 1) * LINES_IN_NOTIFY),
  );
}
