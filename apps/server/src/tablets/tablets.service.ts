import type { TabletPeople, TabletView } from '@jubb/wire';
import { createHash, randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { parse } from 'cookie';
import type { Request, Response } from 'express';
import { DataSource } from 'typeorm';

const COOKIE = 'jubb-tablet';
const YEAR_MS = 365 * 24 * 3600 * 1000;

/** Tablets and screens that somebody logged in on with a password: there, and only there, their PIN will do. */
@Injectable()
export class TabletsService {
  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  async of(request: Request): Promise<TabletView | null> {
    const token = parse(request.headers.cookie ?? '')[COOKIE];
    if (!token) return null;
    const [row] = await this.dataSource.query<TabletView[]>('SELECT id, name FROM tablet WHERE token_hash = $1', [digest(token)]);
    return row ?? null;
  }

  /** Remembers the tablet of a log-in from now on, and who logged in on it. */
  async remember(request: Request, response: Response, personId: string): Promise<TabletView> {
    const tablet = (await this.of(request)) ?? (await this.#begin(request, response, personId));
    await this.dataSource.query('INSERT INTO tablet_person (tablet_id, person_id) VALUES ($1, $2) ON CONFLICT DO NOTHING', [
      tablet.id,
      personId,
    ]);
    return tablet;
  }

  async #begin(request: Request, response: Response, personId: string): Promise<TabletView> {
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

  /** Whether somebody logged in here with their password once: only then their PIN will do. */
  async knows(tabletId: string, personId: string): Promise<boolean> {
    const rows = await this.dataSource.query<unknown[]>('SELECT 1 FROM tablet_person WHERE tablet_id = $1 AND person_id = $2', [
      tabletId,
      personId,
    ]);
    return rows.length > 0;
  }

  async people(request: Request): Promise<TabletPeople> {
    const tablet = await this.of(request);
    // Whoever works here is nobody's business elsewhere.
    if (!tablet) return { tablet, people: [], pinDigits: 4 };
    const [people, [shop]] = await Promise.all([
      this.dataSource.query<TabletPeople['people'][number][]>(
        `SELECT p.id, p.name, p.role, p.pin_hash IS NOT NULL AND p.pin_digits >= s.pin_digits AS "hasPin", p.pin_digits AS "pinDigits"
         FROM person p CROSS JOIN shop s JOIN tablet_person t ON t.person_id = p.id AND t.tablet_id = $1 ORDER BY p.name`,
        [tablet.id],
      ),
      this.dataSource.query<{ pinDigits: number }[]>('SELECT pin_digits AS "pinDigits" FROM shop'),
    ]);
    return { tablet, people, pinDigits: shop?.pinDigits ?? 4 };
  }
}

/** Tokens are random, so that a plain hash keeps them as well as a slow one. */
export function digest(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
