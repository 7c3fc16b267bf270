import type { CareView, PersonView } from '@jubb/book';
import type { Role } from '@jubb/sheet';
import {
  NewPersonBody,
  PersonBody,
  personFrom,
  type Cells,
  type ChangeLine,
  type FirstRunBody,
  type LicenceBody,
  type PasswordBody,
  type PersonLine,
  type ServerEvent,
} from '@jubb/wire';
import { hash, verify } from '@node-rs/argon2';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, IsNull, type EntityManager } from 'typeorm';
import { ProblemError, badInput, changedSince, notFound } from '../common/problem.js';
import { ask, inTransaction } from '../database/data-source.js';
import { StreamService } from '../stream/stream.service.js';
import { tellOver } from '../tablets/over.js';
import { LicenceRow, Person, Shop, ShopCare, TabletPerson } from '../database/entities/index.js';
import { checkPaper } from '../common/papers.js';
import { shopDay } from '../common/shop-day.js';
import { changedFields, keepChange, type InWords } from '../common/changes.js';
import { checkRow } from '../common/validation.js';
import { CHANGES, END_SESSIONS, FORGET_BESIDE, PEOPLE, PERSON, RENAME_IN_SESSIONS } from './people.sql.js';

/** argon2id, memory and time as OWASP's password storage sheet gives them: 19 MiB, 2 passes. */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

@Injectable()
export class PeopleService {
  /** Verified against when there is no such person, so that both cases take as long. */
  readonly #decoy = hash('nobody', ARGON);

  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  async verify(login: string, password: string): Promise<PersonView> {
    const repository = this.dataSource.getRepository(Person);
    const person = await repository.findOne({
      where: { login: login.trim().toLowerCase() },
      select: { id: true, name: true, login: true, role: true, passwordHash: true, leftAt: true },
    });
    const right = await verify(person?.passwordHash ?? (await this.#decoy), password);
    if (!person || !right || person.leftAt !== null) {
      throw new ProblemError('log-in-wrong', {
        errors: [{ field: 'password', allowed: 'does not go with this name' }],
      });
    }
    return { id: person.id, name: person.name, login: person.login, role: person.role };
  }

  async verifyPin(personId: string, pin: string): Promise<PersonView> {
    const [person, { pinDigits }] = await Promise.all([
      this.dataSource.getRepository(Person).findOne({
        where: { id: personId },
        select: { id: true, name: true, login: true, role: true, pinHash: true, pinDigits: true, leftAt: true },
      }),
      this.#shop(),
    ]);
    const right = await verify(person?.pinHash ?? (await this.#decoy), pin);
    if (!person || !right || person.leftAt !== null || person.pinDigits < pinDigits) {
      const none = person && (!person.pinHash || person.pinDigits < pinDigits);
      const allowed = none
        ? `is not set yet: log in with the password, then set one of ${pinDigits} digits`
        : 'is not the PIN of this person';
      throw new ProblemError('pin-wrong', { errors: [{ field: 'pin', allowed }] });
    }
    return { id: person.id, name: person.name, login: person.login, role: person.role };
  }

  async setPin(personId: string, pin: string): Promise<void> {
    const { pinDigits } = await this.#shop();
    if (pin.length < pinDigits) throw badInput([{ field: 'pin', allowed: `must be ${pinDigits} digits in this shop` }]);
    await this.dataSource.getRepository(Person).update(personId, { pinHash: await hash(pin, ARGON), pinDigits: pin.length });
  }

  #shop(): Promise<Shop> {
    return this.dataSource.getRepository(Shop).findOneByOrFail({ id: 1 });
  }

  async openShop({ shop, zone, currency, name, login, password }: FirstRunBody): Promise<void> {
    const passwordHash = await hash(password, ARGON);
    await this.dataSource.transaction(async (manager) => {
      // Of two who come at once, the second finds a foreman.
      await lockShop(manager);
      if (await manager.exists(Person)) throw new ProblemError('shop-open');
      await manager.update(Shop, 1, { name: shop.trim(), zone, currency });
      await manager.insert(Person, { name: name.trim(), login, role: 'foreman', passwordHash });
    });
  }

  list(): Promise<readonly PersonLine[]> {
    return ask(this.dataSource.manager, PEOPLE);
  }

  line(id: string): Promise<PersonLine> {
    return one(this.dataSource.manager, id);
  }

  /** Somebody begins to work here. */
  async begin(body: NewPersonBody, by: PersonView): Promise<PersonLine> {
    const passwordHash = await hash(body.password, ARGON);
    return inTransaction(this.dataSource, async (manager) => {
      await lockShop(manager);
      if (await manager.existsBy(Person, { login: body.login }))
        throw badInput([{ field: 'login', given: body.login, allowed: 'is somebody else’s already, also of one who left' }]);
      return one(manager, await begins(manager, body, passwordHash, by));
    });
  }

  /** A row of a table as somebody who works here: somebody new, or another name or role of whoever has that log-in. */
  async bring(manager: EntityManager, cells: Cells, by: PersonView): Promise<'made' | 'changed' | 'same'> {
    await lockShop(manager);
    const before = await manager.findOneBy(Person, { login: (cells['login'] ?? '').trim().toLowerCase() });
    const { body, wrongs } = personFrom(cells, before ?? undefined);
    if (!before) {
      checkRow(NewPersonBody, body, wrongs);
      await begins(manager, body, await hash(body.password, ARGON), by);
      return 'made';
    }
    const { name, role } = body;
    const to = { version: before.version, name, role, hasLeft: before.leftAt !== null };
    checkRow(PersonBody, to, wrongs);
    if (name === before.name && role === before.role) return 'same';
    // Other tablets hear of it with the transaction.
    await changes(manager, before, to, by);
    return 'changed';
  }

  /** Name, role, or that they left: whoever left, or does something else from now on, is logged out everywhere. */
  async change(id: string, body: PersonBody, by: PersonView): Promise<PersonLine> {
    const ended: ServerEvent[] = [];
    const changed = await inTransaction(this.dataSource, async (manager) => {
      await lockShop(manager);
      const before = await manager.findOneBy(Person, { id });
      if (!before) throw notFound('person');
      if (before.version !== body.version) throw changedSince('person', await one(manager, id));
      ended.push(...(await changes(manager, before, body, by)));
      return one(manager, id);
    });
    for (const over of ended) this.stream.knowsItself(over);
    return changed;
  }

  /** A new password for somebody who forgot theirs: they are logged out everywhere, and their PIN is none any more. */
  async newPassword(id: string, { password }: PasswordBody, by: PersonView): Promise<void> {
    const passwordHash = await hash(password, ARGON);
    const ended = await inTransaction(this.dataSource, async (manager) => {
      const person = await manager.findOneBy(Person, { id });
      if (!person) throw notFound('person');
      if (person.leftAt !== null) throw badInput([{ field: 'password', allowed: 'is of no use: they left' }]);
      await manager.update(Person, id, { passwordHash, pinHash: null, version: () => 'version + 1' });
      await manager.delete(TabletPerson, { personId: id });
      await keepChange(manager, by, { what: 'person', subject: person.name, act: 'new password' }, []);
      return endSessions(manager, id);
    });
    for (const over of ended) this.stream.knowsItself(over);
  }

  /** A certificate of licensed practice: holds and licensed steps go by it. */
  async addLicence(personId: string, { covers, number, givenBy, until, paperId }: LicenceBody, by: PersonView): Promise<PersonLine> {
    return inTransaction(this.dataSource, async (manager) => {
      const person = await manager.findOneBy(Person, { id: personId });
      if (!person) throw notFound('person');
      const { today } = await shopDay({ manager });
      if (until !== undefined && until < today)
        throw badInput([{ field: 'until', given: until, allowed: 'is over already: keep the newer one' }]);
      await checkPaper(manager, paperId);
      const kept = { covers, number: number.trim(), givenBy: givenBy.trim(), until: until ?? null };
      await manager.insert(LicenceRow, { ...kept, personId, paperId: paperId ?? null, keptBy: by.id });
      await keepChange(manager, by, { what: 'person', subject: person.name, act: 'certificate' }, changedFields({}, licenceInWords(kept)));
      return one(manager, personId);
    });
  }

  async dropLicence(id: string, by: PersonView): Promise<PersonLine> {
    return inTransaction(this.dataSource, async (manager) => {
      const licence = await manager.findOne(LicenceRow, { where: { id }, lock: { mode: 'pessimistic_write' } });
      if (!licence) throw notFound('certificate');
      const person = await manager.findOneByOrFail(Person, { id: licence.personId });
      await manager.delete(LicenceRow, id);
      const said = { what: 'person', subject: person.name, act: 'certificate taken off' } as const;
      await keepChange(manager, by, said, changedFields(licenceInWords(licence), {}));
      return one(manager, person.id);
    });
  }

  /** The last backup, the last rehearsal and the last walk. */
  async care(): Promise<readonly CareView[]> {
    const last = await this.dataSource.manager
      .createQueryBuilder(ShopCare, 'care')
      .distinctOn(['care.what'])
      .orderBy('care.what')
      .addOrderBy('care.at', 'DESC')
      .getMany();
    return last.map(({ what, at, isGood, words }) => ({ what, at: at.toISOString(), isGood, words }));
  }

  changes(find: string, before: string | undefined): Promise<readonly ChangeLine[]> {
    return ask(this.dataSource.manager, CHANGES, before ?? null, find.trim());
  }

  async add(name: string, login: string, role: Role, password: string): Promise<PersonView> {
    const repository = this.dataSource.getRepository(Person);
    const person = await repository.save(repository.create({ name, login, role, passwordHash: await hash(password, ARGON) }));
    return { id: person.id, name, login, role };
  }
}

/** Puts somebody new on the list; gives their id. */
async function begins(manager: EntityManager, { name, login, role }: NewPersonBody, passwordHash: string, by: PersonView): Promise<string> {
  const { identifiers } = await manager.insert(Person, { name: name.trim(), login, role, passwordHash });
  await keepChange(manager, by, { what: 'person', subject: name.trim(), act: 'added' }, changedFields({}, { 'log-in': login, role }));
  return String(identifiers[0]!['id']);
}

/** What somebody is from now on; gives the sessions of theirs that are over with it. */
async function changes(
  manager: EntityManager,
  before: Person,
  { version, name, role, hasLeft }: PersonBody,
  by: PersonView,
): Promise<readonly ServerEvent[]> {
  const { id } = before;
  const left = before.leftAt !== null;
  const isForeman = role === 'foreman' && !hasLeft;
  if (!isForeman && before.role === 'foreman' && !left && (await manager.countBy(Person, { role: 'foreman', leftAt: IsNull() })) === 1)
    throw badInput([
      hasLeft
        ? { field: 'hasLeft', given: 'true', allowed: 'cannot be: this is the only foreman. Make another one first' }
        : { field: 'role', given: role, allowed: 'must stay foreman: this is the only one. Make another one first' },
    ]);
  const leftAt = hasLeft ? (before.leftAt ?? new Date()) : null;
  await manager.update(Person, id, { name: name.trim(), role, leftAt, version: version + 1, ...(hasLeft ? { pinHash: null } : {}) });
  if (hasLeft && !left) await manager.delete(TabletPerson, { personId: id });
  const said = (of: { readonly name: string; readonly role: Role; readonly gone: boolean }): InWords => ({
    name: of.name,
    role: of.role,
    here: of.gone ? 'left' : 'works here',
  });
  const fields = changedFields(said({ ...before, gone: left }), said({ name: name.trim(), role, gone: hasLeft }));
  const act = hasLeft === left ? 'changed' : hasLeft ? 'left' : 'is back';
  if (fields.length > 0) await keepChange(manager, by, { what: 'person', subject: name.trim(), act }, fields);
  if (hasLeft !== left || role !== before.role) return endSessions(manager, id);
  if (name.trim() !== before.name) await ask(manager, RENAME_IN_SESSIONS, id, name.trim());
  return [];
}

function licenceInWords({ covers, number, givenBy, until }: Pick<LicenceRow, 'covers' | 'number' | 'givenBy' | 'until'>): InWords {
  return { for: covers, number, 'given by': givenBy, until: until ?? 'no end' };
}

/** The row of the shop is the lock of who works here. */
async function lockShop(manager: EntityManager): Promise<void> {
  await manager.findOne(Shop, { where: { id: 1 }, lock: { mode: 'pessimistic_write' } });
}

async function one(manager: EntityManager, id: string): Promise<PersonLine> {
  const [line] = await ask<PersonLine>(manager, PERSON, id);
  if (!line) throw notFound('person');
  return line;
}

/** Their sessions are over, on every tablet and for every process, with the transaction; gives what is over. */
async function endSessions(manager: EntityManager, id: string): Promise<readonly ServerEvent[]> {
  return tellOver(manager, [
    ...(await ask<{ sid: string }>(manager, END_SESSIONS, id)),
    ...(await ask<{ sid: string }>(manager, FORGET_BESIDE, id)),
  ]);
}
