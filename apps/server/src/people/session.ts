import type { PersonView } from '@jubb/contract';
import connectPgSimple from 'connect-pg-simple';
import session, { type SessionData } from 'express-session';
import type { RequestHandler } from 'express';
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

/** For so long a process goes by what it read: a log-out at another process takes effect after it. */
const REMEMBERED_MS = 2000;
const MOST_REMEMBERED = 5000;

type Answer = (error: unknown, session?: SessionData | null) => void;

/** Remembers sessions for a moment, since a tablet in use asks for its own with every tap. */
class RememberingStore extends connectPgSimple(session) {
  readonly #read = new Map<string, { readonly text: string; readonly until: number }>();

  override get(sid: string, answer: Answer): void {
    const known = this.#read.get(sid);
    if (known && known.until > Date.now()) {
      answer(null, JSON.parse(known.text) as SessionData);
      return;
    }
    super.get(sid, (error: unknown, found?: SessionData | null) => {
      if (this.#read.size >= MOST_REMEMBERED) this.#read.clear();
      if (found) this.#read.set(sid, { text: JSON.stringify(found), until: Date.now() + REMEMBERED_MS });
      answer(error, found);
    });
  }

  override set(sid: string, data: SessionData, done?: (error?: unknown) => void): void {
    this.#read.delete(sid);
    super.set(sid, data, done);
  }

  override destroy(sid: string, done?: (error?: unknown) => void): void {
    this.#read.delete(sid);
    super.destroy(sid, done);
  }
}

/** Cookie session kept in PostgreSQL, so that any server process knows it. */
export function sessionMiddleware(pool: Pool, secret: string): RequestHandler {
  return session({
    name: 'jubb',
    secret,
    store: new RememberingStore({ pool, tableName: 'session', disableTouch: true, errorLog: () => undefined }),
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: TWELVE_HOURS_MS },
  });
}
