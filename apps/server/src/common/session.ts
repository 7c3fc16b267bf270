import type { PersonView } from '@jubb/book';
import type { ServerEvent } from '@jubb/wire';
import { createHash } from 'node:crypto';
import connectPgSimple from 'connect-pg-simple';
import session, { type SessionData } from 'express-session';
import type { Request, RequestHandler } from 'express';
import type { Pool } from 'pg';

export type SessionPerson = PersonView;

declare module 'express-session' {
  interface SessionData {
    person: SessionPerson;
    /** Who has proved themselves in this session, by password or PIN. */
    people: readonly SessionPerson[];
    csrf: string;
  }
}

const TWELVE_HOURS_MS = 12 * 3600 * 1000;

/** For so long a process goes by what it read, unless it is told that the session is over. */
const REMEMBERED_MS = 2000;
const MOST_REMEMBERED = 5000;

type Answer = (error: unknown, session?: SessionData | null) => void;

/** What a session is called where its id, which is as good as a password, must not be. */
export function sessionMark(sid: string): string {
  return createHash('sha256').update(sid).digest('base64url');
}

/** Remembers sessions for a moment, since a tablet in use asks for its own with every tap; one that is over is over for every process. */
class RememberingStore extends connectPgSimple(session) {
  readonly #pool: Pool;
  /** By the mark of the session. */
  readonly #read = new Map<string, { readonly text: string; readonly until: number }>();

  constructor(pool: Pool) {
    super({ pool, tableName: 'session', disableTouch: true, errorLog: () => undefined });
    this.#pool = pool;
  }

  forget(mark: string): void {
    this.#read.delete(mark);
  }

  override get(sid: string, answer: Answer): void {
    const mark = sessionMark(sid);
    const known = this.#read.get(mark);
    if (known && known.until > Date.now()) {
      answer(null, JSON.parse(known.text) as SessionData);
      return;
    }
    super.get(sid, (error: unknown, found?: SessionData | null) => {
      if (this.#read.size >= MOST_REMEMBERED) this.#read.clear();
      if (found) this.#read.set(mark, { text: JSON.stringify(found), until: Date.now() + REMEMBERED_MS });
      answer(error, found);
    });
  }

  override set(sid: string, data: SessionData, done?: (error?: unknown) => void): void {
    this.#read.delete(sessionMark(sid));
    super.set(sid, data, done);
  }

  override destroy(sid: string, done?: (error?: unknown) => void): void {
    const mark = sessionMark(sid);
    this.#read.delete(mark);
    super.destroy(sid, (error?: unknown) => {
      const over: ServerEvent = { type: 'session-over', session: mark };
      // Whoever cannot hear it goes by what it reads from now on.
      this.#pool.query("SELECT pg_notify('jubb', $1)", [JSON.stringify(over)]).then(
        () => done?.(error),
        () => done?.(error),
      );
    });
  }
}

/** Cookie session kept in PostgreSQL, so that any server process knows it. `forget` is for what other processes say is over. */
export function makeSessions(pool: Pool, secret: string): { readonly middleware: RequestHandler; readonly forget: (mark: string) => void } {
  const store = new RememberingStore(pool);
  const middleware = session({
    name: 'jubb',
    secret,
    store,
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: TWELVE_HOURS_MS },
  });
  return { middleware, forget: (mark) => store.forget(mark) };
}

/** Whether the session that a request began with still is; taken as open while the database cannot tell. */
export function isOpen({ sessionStore, sessionID }: Request): Promise<boolean> {
  return new Promise((resolve) => {
    sessionStore.get(sessionID, (error: unknown, found) => resolve(Boolean(error) || Boolean(found)));
  });
}
