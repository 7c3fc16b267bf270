import type { PersonView } from '@jubb/contract';
import connectPgSimple from 'connect-pg-simple';
import session from 'express-session';
import type { RequestHandler } from 'express';
import type { Pool } from 'pg';

export type SessionPerson = PersonView;

declare module 'express-session' {
  interface SessionData {
    person: SessionPerson;
    csrf: string;
  }
}

const TWELVE_HOURS_MS = 12 * 3600 * 1000;

/** Cookie session kept in PostgreSQL, so that any server process knows it. */
export function sessionMiddleware(pool: Pool, secret: string): RequestHandler {
  const Store = connectPgSimple(session);
  return session({
    name: 'jubb',
    secret,
    store: new Store({ pool, tableName: 'session', disableTouch: true, errorLog: () => undefined }),
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: TWELVE_HOURS_MS },
  });
}
