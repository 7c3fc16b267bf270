import type { LiveLine, ServerEvent } from '@jubb/wire';
import {
  Inject,
  Injectable,
  Logger,
  type BeforeApplicationShutdown,
  type OnApplicationBootstrap,
  type OnApplicationShutdown,
} from '@nestjs/common';
import { HttpAdapterHost } from '@nestjs/core';
import type { Server } from 'node:http';
import pg from 'pg';
import { Subject } from 'rxjs';
import { DataSource } from 'typeorm';
import { ask } from '../database/data-source.js';
import { TELL } from './stream.sql.js';
import { CONFIG } from '../tokens.js';
import type { Config } from '../config.js';

const RETRY_MS = 1000;
/** A database that hangs says nothing: it is asked so often, and has so long to answer. */
const PULSE_MS = 2000;
const PATIENCE = { connectionTimeoutMillis: 2000, query_timeout: 2000 };
/** What is under way when the server is told to stop has so long to end. */
const LET_GO_MS = 1500;
/** How long changes are gathered before they are told: a NOTIFY holds up every commit beside it. */
const GATHER_MS = 50;

/** Tells what changed to every server process by NOTIFY, and hears it on a connection of its own, for ever. */
@Injectable()
export class StreamService implements OnApplicationBootstrap, BeforeApplicationShutdown, OnApplicationShutdown {
  readonly events = new Subject<ServerEvent>();
  /** It stopped hearing, or hears anew: changes may have been missed, and whatever is remembered is old. */
  readonly missed = new Subject<void>();
  readonly #log = new Logger('stream');
  #client: pg.Client | undefined;
  #stopped = false;
  #isDeaf = true;
  #pulse: NodeJS.Timeout | undefined;
  #retry: NodeJS.Timeout | undefined;
  /** Told next, the newest of each kind and job. */
  readonly #told = new Map<string, ServerEvent>();
  /** Lines of instruments told next: they are not gathered into one, since each may be one to take. */
  #lines: LiveLine[] = [];
  #telling: NodeJS.Timeout | undefined;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(HttpAdapterHost) private readonly http: HttpAdapterHost,
  ) {}

  /** Changes may pass unheard now: nothing is to be remembered. */
  get isDeaf(): boolean {
    return this.#isDeaf;
  }

  /** To be called when the change is committed; pages hear of it shortly after. */
  tell(event: ServerEvent): void {
    this.#told.set(`${event.type} ${'jobId' in event ? event.jobId : 'file' in event ? event.file : ''}`, event);
    this.#tellSoon();
  }

  /** What this process did itself it knows at once, before the database has told it. */
  knowsItself(event: ServerEvent): void {
    this.events.next(event);
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
      await ask(this.dataSource.manager, TELL, events);
    } catch (error) {
      // Whoever lost the database lost its listener too, and asks for everything anew on the next link.
      this.#log.warn(`changes could not be told: ${error instanceof Error ? error.message : String(error)}`);
    }
  }

  async onApplicationBootstrap(): Promise<void> {
    await this.#listen();
  }

  /** Pages that are open are let go of first: the server ends when the last of them is gone. */
  beforeApplicationShutdown(): void {
    this.events.complete();
    // A process that only loads something has no server.
    const adapter = this.http.httpAdapter as HttpAdapterHost['httpAdapter'] | null;
    if (!adapter) return;
    const server = adapter.getHttpServer() as Server;
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), LET_GO_MS).unref();
  }

  async onApplicationShutdown(): Promise<void> {
    this.#stopped = true;
    clearTimeout(this.#retry);
    clearTimeout(this.#telling);
    clearInterval(this.#pulse);
    if (this.#told.size > 0 || this.#lines.length > 0) await this.#tellAll();
    await this.#client?.end().catch(() => undefined);
  }

  async #listen(): Promise<void> {
    if (this.#stopped) return;
    const client = new pg.Client({
      connectionString: this.config.databaseUrl,
      application_name: 'jubb-stream',
      keepAlive: true,
      ...PATIENCE,
    });
    this.#client = client;
    let lost = false;
    const again = (): void => {
      if (lost || this.#stopped) return;
      lost = true;
      clearInterval(this.#pulse);
      this.#isDeaf = true;
      this.missed.next();
      // One that hangs never says good-bye.
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
      this.#isDeaf = false;
      this.missed.next();
      this.#pulse = setInterval(() => void client.query('SELECT 1').catch(again), PULSE_MS);
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
