import { createHash, randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import type { TabletPeople, TabletView } from '@jubb/contract';
import { parse } from 'cookie';
import type { Request, Response } from 'express';
import { DataSource } from 'typeorm';

const COOKIE = 'jubb-tablet';
const YEAR_MS = 365 * 24 * 3600 * 1000;

/** Tablets and screens that somebody logged in on with a password: there, and only there, a PIN will do. */
@Injectable()
export class TabletsService {
  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  async of(request: Request): Promise<TabletView | null> {
    const token = parse(request.headers.cookie ?? '')[COOKIE];
    if (!token) return null;
    const [row] = await this.dataSource.query<TabletView[]>('SELECT id, name FROM tablet WHERE token_hash = $1', [digest(token)]);
    return row ?? null;
  }

  /** Remembers the tablet of a log-in from now on. */
  async remember(request: Request, response: Response, personId: string): Promise<TabletView> {
    const known = await this.of(request);
    if (known) return known;
    const token = randomBytes(24).toString('base64url');
    const [row] = await this.dataSource.query<TabletView[]>(
      `INSERT INTO tablet (token_hash, name, added_by) VALUES ($1, 'Tablet ' || nextval('tablet_number'), $2) RETURNING id, name`,
      [digest(token), personId],
    );
    response.cookie(COOKIE, token, { httpOnly: true, sameSite: 'strict', secure: request.secure, maxAge: YEAR_MS });
    return row!;
  }

  async name(id: string, name: string): Promise<void> {
    await this.dataSource.query('UPDATE tablet SET name = $2 WHERE id = $1', [id, name.trim()]);
  }

  async people(request: Request): Promise<TabletPeople> {
    const tablet = await this.of(request);
    // Whoever works here is nobody's business elsewhere.
    if (!tablet) return { tablet, people: [] };
    const people = await this.dataSource.query<TabletPeople['people'][number][]>(
      'SELECT id, name, role, pin_hash IS NOT NULL AS "hasPin" FROM person ORDER BY name',
    );
    return { tablet, people };
  }
}

/** Tokens are random, so that a plain hash keeps them as well as a slow one. */
export function digest(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
