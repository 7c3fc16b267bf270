import { hash, verify } from '@node-rs/argon2';
import { Inject, Injectable } from '@nestjs/common';
import type { PersonView, Role } from '@jubb/contract';
import { DataSource } from 'typeorm';
import { ProblemError } from '../common/problem.js';
import { Person } from '../database/entities.js';

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
      throw new ProblemError(401, 'Name and password do not go together', {
        errors: [{ field: 'password', allowed: 'does not go with this name' }],
      });
    }
    return { id: person.id, name: person.name, login: person.login, role: person.role };
  }

  async add(name: string, login: string, role: Role, password: string): Promise<PersonView> {
    const repository = this.dataSource.getRepository(Person);
    const person = await repository.save(repository.create({ name, login, role, passwordHash: await hash(password, ARGON) }));
    return { id: person.id, name, login, role };
  }

  async all(): Promise<readonly PersonView[]> {
    return this.dataSource.getRepository(Person).find({ order: { name: 'ASC' } });
  }
}
