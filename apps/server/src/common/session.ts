import type { PersonView } from '@jubb/book';
import type { ServerEvent } from '@jubb/wire';
import { Signer } from '@fastify/cookie';
import type fastifySession from '@fastify/session';
import connectPgSimple from 'connect-pg-simple';
import type { FastifyRequest, Session } from 'fastify';
import { createHash } from 'node:crypto';
import { EventEmitter } from 'node:events';
import type { Pool } from 'pg';

export type SessionPerson = PersonView;

declare module 'fastify' {
  interface Session {
    person?: SessionPerson;
    /** Who has proved themselves in this session, by password or PIN. */
    people?: readonly SessionPerson[];
    csrf?: string;
    /** Where it was begun. */
    tabletId?: string;
  }
}

const TWELVE_HOURS_MS = 12 * 3600 * 1000;

/** For so long a process goes by what it read, unless it is told that the session is over. */
const REMEMBERED_MS = 2000;
const MOST_REMEMBERED = 5000;

type Answer = (error: unknown, session?: Session | null) => void;
type Done = (error?: unknown) => void;

/** What a session is called where its id, which is as good as a password, must not be. */
export function sessionMark(sid: string): string {
  return createHash('sha256').update(sid).digest('base64url');
}

/** Of a store it asks for nothing but that it says what happens to it. */
const PgStore = connectPgSimple({ Store: EventEmitter } as unknown as Parameters<typeof connectPgSimple>[0]);

/** Remembers sessions for a moment, since a tablet in use asks for its own with every tap; one that is over is over for every process. */
export class RememberingStore implements fastifySession.SessionStore {
  readonly #pool: Pool;
  readonly #kept: fastifySession.SessionStore;
  readonly #read = new Map<string, { readonly text: string; readonly until: number }>();
  /** So many were said to be over: what was read before that is not remembered after it. */
  #forgotten = 0;
  /** Ids of what is remembered, by what the session is called outside. */
  readonly #ids = new Map<string, string>();

  constructor(pool: Pool) {
    this.#pool = pool;
    const options = { pool, tableName: 'session', disableTouch: true, errorLog: (): void => undefined };
    this.#kept = new PgStore(options) as unknown as fastifySession.SessionStore;
  }

  /** What another process says is over. */
  forget(mark: string): void {
    this.#forgotten += 1;
    this.#read.delete(this.#ids.get(mark) ?? '');
  }

  get(sid: string, answer: Answer): void {
    const known = this.#read.get(sid);
    if (known && known.until > Date.now()) {
      answer(null, JSON.parse(known.text) as Session);
      return;
    }
    const at = this.#forgotten;
    this.#kept.get(sid, (error: unknown, found) => {
      if (found && at === this.#forgotten) this.#remember(sid, JSON.stringify(found));
      answer(error, found);
    });
  }

  #remember(sid: string, text: string): void {
    if (this.#read.size >= MOST_REMEMBERED) {
      this.#read.clear();
      this.#ids.clear();
    }
    this.#read.set(sid, { text, until: Date.now() + REMEMBERED_MS });
    this.#ids.set(sessionMark(sid), sid);
  }

  set(sid: string, data: Session, done: Done): void {
    this.#read.delete(sid);
    this.#kept.set(sid, data, done);
  }

  destroy(sid: string, done: Done): void {
    const mark = sessionMark(sid);
    this.#read.delete(sid);
    this.#kept.destroy(sid, (error?: unknown) => {
      const over: ServerEvent = { type: 'session-over', session: mark };
      // Whoever cannot hear it goes by what it reads from now on.
      this.#pool.query("SELECT pg_notify('jubb', $1)", [JSON.stringify(over)]).then(
        () => done(error),
        () => done(error),
      );
    });
  }
}

/** Cookie session kept in PostgreSQL, so that any server process knows it. */
export function sessionOptions(store: RememberingStore, secret: string): fastifySession.FastifySessionOptions {
  return {
    cookieName: 'jubb',
    // Sessions of before are known by it.
    cookiePrefix: 's:',
    secret: rememberingSigner(secret),
    store,
    rolling: false,
    saveUninitialized: false,
    // Over https it is made a secure one with its log-in.
    cookie: { path: '/', httpOnly: true, sameSite: 'strict', secure: false, maxAge: TWELVE_HOURS_MS },
  };
}

/** Signs session ids; a tablet sends the same signed one with every tap, and what was found right once is right. */
function rememberingSigner(secret: string): Pick<Signer, 'sign' | 'unsign'> {
  const signer = new Signer(secret);
  const right = new Map<string, ReturnType<Signer['unsign']>>();
  return {
    sign: (value) => signer.sign(value),
    unsign: (signed) => {
      const known = right.get(signed) ?? signer.unsign(signed);
      if (right.size >= MOST_REMEMBERED) right.clear();
      if (known.valid) right.set(signed, known);
      return known;
    },
  };
}

/** Whether the session that a request began with still is; taken as open while the database cannot tell. */
export function isOpen({ sessionStore, session: { sessionId } }: FastifyRequest): Promise<boolean> {
  return new Promise((resolve) => {
    sessionStore.get(sessionId, (error: unknown, found) => resolve(Boolean(error) || Boolean(found)));
  });
}
