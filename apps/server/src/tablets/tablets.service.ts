import type { PersonView } from '@jubb/book';
import type { ServerEvent, TabletLine, TabletPeople, TabletView } from '@jubb/wire';
import { createHash, randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { DataSource } from 'typeorm';
import { keepChange } from '../common/changes.js';
import { notFound } from '../common/problem.js';
import { ask, inTransaction } from '../database/data-source.js';
import { Instrument, Shop, Tablet, TabletPerson } from '../database/entities/index.js';
import { StreamService } from '../stream/stream.service.js';
import { tellOver } from './over.js';
import { END_LOG_IN, END_LOG_INS, TABLETS } from './tablets.sql.js';

const COOKIE = 'jubb-tablet';
const YEAR_S = 365 * 24 * 3600;

/** Tablets and screens that somebody logged in on with a password: there, and only there, their PIN will do. */
@Injectable()
export class TabletsService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  async of(request: FastifyRequest): Promise<TabletView | null> {
    const token = request.cookies[COOKIE];
    if (!token) return null;
    const tablet = await this.dataSource.manager.findOneBy(Tablet, { tokenHash: digest(token) });
    return tablet && { id: tablet.id, name: tablet.name };
  }

  /** Remembers the tablet of a log-in from now on, and who logged in on it. */
  async remember(request: FastifyRequest, reply: FastifyReply, personId: string): Promise<TabletView> {
    const tablet = (await this.of(request)) ?? (await this.#begin(request, reply, personId));
    const knows = { tabletId: tablet.id, personId };
    await this.dataSource.manager.createQueryBuilder().insert().into(TabletPerson).values(knows).orIgnore().execute();
    return tablet;
  }

  async #begin(request: FastifyRequest, reply: FastifyReply, personId: string): Promise<TabletView> {
    const token = randomBytes(24).toString('base64url');
    const { identifiers } = await this.dataSource.manager.insert(Tablet, {
      tokenHash: digest(token),
      name: () => `'Tablet ' || nextval('tablet_number')`,
      addedBy: personId,
    });
    const tablet = await this.dataSource.manager.findOneByOrFail(Tablet, { id: String(identifiers[0]!['id']) });
    const secure = request.protocol === 'https';
    void reply.setCookie(COOKIE, token, { path: '/', httpOnly: true, sameSite: 'strict', secure, maxAge: YEAR_S });
    return { id: tablet.id, name: tablet.name };
  }

  async name(id: string, name: string): Promise<void> {
    await this.dataSource.manager.update(Tablet, id, { name: name.trim() });
  }

  /** Every tablet of the shop, who may use a PIN there and who is logged in there; `sid` is the session that asks. */
  list(sid: string): Promise<readonly TabletLine[]> {
    return ask(this.dataSource.manager, TABLETS, sid);
  }

  /** A tablet that is lost or sold: whoever was in there is out, and no PIN will do there any more. */
  async forget(id: string, by: PersonView): Promise<void> {
    const ended = await inTransaction(this.dataSource, async (manager) => {
      const tablet = await manager.findOne(Tablet, { where: { id }, lock: { mode: 'pessimistic_write' } });
      if (!tablet) throw notFound('tablet');
      await manager.update(Instrument, { tabletId: id }, { tabletId: null });
      await manager.delete(TabletPerson, { tabletId: id });
      await manager.delete(Tablet, id);
      await keepChange(manager, by, { what: 'tablet', subject: tablet.name, act: 'forgotten' }, []);
      return tellOver(manager, await ask<{ sid: string }>(manager, END_LOG_INS, id));
    });
    this.#told(ended);
    this.stream.tell({ type: 'instruments' });
  }

  /** Logs somebody out from afar. */
  async endLogIn(mark: string, by: PersonView): Promise<void> {
    const ended = await inTransaction(this.dataSource, async (manager) => {
      const rows = await ask<{ sid: string; person: string; tabletId: string | null }>(manager, END_LOG_IN, mark);
      const [over] = rows;
      if (!over) throw notFound('log-in');
      const tablet = over.tabletId === null ? null : await manager.findOneBy(Tablet, { id: over.tabletId });
      const fields = [{ field: 'logged in', before: over.person, after: '' }];
      await keepChange(manager, by, { what: 'tablet', subject: tablet?.name ?? 'a tablet', act: 'logged out' }, fields);
      return tellOver(manager, rows);
    });
    this.#told(ended);
  }

  #told(ended: readonly ServerEvent[]): void {
    for (const over of ended) this.stream.knowsItself(over);
  }

  /** Whether somebody logged in here with their password once: only then their PIN will do. */
  knows(tabletId: string, personId: string): Promise<boolean> {
    return this.dataSource.manager.existsBy(TabletPerson, { tabletId, personId });
  }

  async people(request: FastifyRequest): Promise<TabletPeople> {
    const tablet = await this.of(request);
    // Whoever works here is nobody's business elsewhere.
    if (!tablet) return { tablet, people: [], pinDigits: 4 };
    const [{ pinDigits }, known] = await Promise.all([
      this.dataSource.manager.findOneByOrFail(Shop, { id: 1 }),
      this.dataSource.manager.find(TabletPerson, {
        where: { tabletId: tablet.id },
        relations: { person: true },
        select: { tabletId: true, personId: true, person: { id: true, name: true, role: true, pinHash: true, pinDigits: true } },
        order: { person: { name: 'ASC' } },
      }),
    ]);
    const people = known.map(({ person: { id, name, role, pinHash, pinDigits: digits } }) => ({
      id,
      name,
      role,
      hasPin: pinHash !== null && digits >= pinDigits,
      pinDigits: digits,
    }));
    return { tablet, people, pinDigits };
  }
}

/** Tokens are random, so that a plain hash keeps them as well as a slow one. */
export function digest(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
