import type { PersonView } from '@jubb/book';
import type { Role } from '@jubb/sheet';
import type { FirstRunBody } from '@jubb/wire';
import { hash, verify } from '@node-rs/argon2';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ProblemError, badInput } from '../common/problem.js';
import { Person, Shop } from '../database/entities/index.js';

/** argon2id, memory and time as OWASP's password storage sheet gives them: 19 MiB, 2 passes. */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

@Injectable()
export class PeopleService {
  /** Verified against when there is no such person, so that both cases take as long. */
  readonly #decoy = hash('nobody', ARGON);

  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  async verify(login: string, password: string): Promise<PersonView> {
    const repository = this.dataSource.getRepository(Person);
    const person = await repository.findOne({
      where: { login: login.trim().toLowerCase() },
      select: { id: true, name: true, login: true, role: true, passwordHash: true },
    });
    const right = await verify(person?.passwordHash ?? (await this.#decoy), password);
    if (!person || !right) {
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
        select: { id: true, name: true, login: true, role: true, pinHash: true, pinDigits: true },
      }),
      this.#shop(),
    ]);
    const right = await verify(person?.pinHash ?? (await this.#decoy), pin);
    if (!person || !right || person.pinDigits < pinDigits) {
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
      // The row of the shop is the lock: of two who come at once, the second finds a foreman.
      await manager.findOne(Shop, { where: { id: 1 }, lock: { mode: 'pessimistic_write' } });
      if (await manager.exists(Person)) throw new ProblemError('shop-open');
      await manager.update(Shop, 1, { name: shop.trim(), zone, currency });
      await manager.insert(Person, { name: name.trim(), login, role: 'foreman', passwordHash });
    });
  }

  async add(name: string, login: string, role: Role, password: string): Promise<PersonView> {
    const repository = this.dataSource.getRepository(Person);
    const person = await repository.save(repository.create({ name, login, role, passwordHash: await hash(password, ARGON) }));
    return { id: person.id, name, login, role };
  }
}
