import type { PersonView } from '@jubb/book';
import type { SecondBody, SecondView } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { Secret, TOTP } from 'otpauth';
import QRCode from 'qrcode';
import { DataSource } from 'typeorm';
import { keepChange } from '../common/changes.js';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { inTransaction } from '../database/data-source.js';
import { Person, Shop } from '../database/entities/index.js';

/** 160 bits, as RFC 4226 section 4 asks for. */
const SECRET_BYTES = 20;
const STEP_S = 30;
/** A telephone's clock may be off by a step. */
const STEPS_OFF = 1;

/** Codes of a telephone beside the password: RFC 6238, six digits, half a minute each, each good once. */
@Injectable()
export class SecondFactorService {
  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  async view({ id, login }: PersonView): Promise<SecondView> {
    const { secondSecret } = await this.#of(id);
    if (secondSecret !== null) return { isSet: true };
    const { name } = await this.dataSource.getRepository(Shop).findOneByOrFail({ id: 1 });
    const totp = new TOTP({ issuer: `Jubb ${name}`, label: login, secret: new Secret({ size: SECRET_BYTES }), period: STEP_S });
    const uri = totp.toString();
    return {
      isSet: false,
      secret: totp.secret.base32,
      uri,
      picture: await QRCode.toString(uri, { type: 'svg', errorCorrectionLevel: 'M' }),
    };
  }

  /** From now on a password of theirs wants a code; refused until the telephone gives the right one. */
  async begin(person: PersonView, { secret, code }: Pick<SecondBody, 'secret' | 'code'>): Promise<void> {
    const step = stepOf(secret, code);
    if (step === undefined)
      throw badInput([{ field: 'code', given: code, allowed: 'is not the one of this secret: does the telephone’s clock go right?' }]);
    await inTransaction(this.dataSource, async (manager) => {
      await manager.update(Person, person.id, { secondSecret: secret, secondStep: String(step) });
      await keepChange(manager, person, { what: 'person', subject: person.name, act: 'second factor' }, []);
    });
  }

  /** Without one again: their own word, or a foreman’s where the telephone is lost. */
  async end(id: string, by: PersonView): Promise<void> {
    await inTransaction(this.dataSource, async (manager) => {
      const { name, secondSecret } = await this.#of(id);
      if (secondSecret === null) return;
      await manager.update(Person, id, { secondSecret: null, secondStep: null });
      await keepChange(manager, by, { what: 'person', subject: name, act: 'second factor taken off' }, []);
    });
  }

  /** Refuses a log-in whose password is right and whose code is not, or was used before. */
  async check(id: string, code: string | undefined): Promise<void> {
    const { secondSecret } = await this.#of(id);
    if (secondSecret === null) return;
    if (code === undefined) throw new ProblemError('second-factor');
    const step = stepOf(secondSecret, code);
    const wrong = (allowed: string): ProblemError => new ProblemError('second-factor', { errors: [{ field: 'code', allowed }] });
    if (step === undefined) throw wrong('is not the one that the telephone shows now');
    // Of two who come with the same code the second finds it used.
    const { affected } = await this.dataSource
      .createQueryBuilder()
      .update(Person)
      .set({ secondStep: String(step) })
      .where('id = :id AND (second_step IS NULL OR second_step < :step)', { id, step })
      .execute();
    if (affected === 0) throw wrong('was used already: wait for the next one');
  }

  async #of(id: string): Promise<Pick<Person, 'name' | 'secondSecret'>> {
    const person = await this.dataSource
      .getRepository(Person)
      .findOne({ where: { id }, select: { id: true, name: true, secondSecret: true } });
    if (!person) throw notFound('person');
    return person;
  }
}

/** The step of the clock that a code is of; nothing where it is of none near now. */
function stepOf(secret: string, token: string): number | undefined {
  const delta = new TOTP({ secret: Secret.fromBase32(secret), period: STEP_S }).validate({ token, window: STEPS_OFF });
  return delta === null ? undefined : Math.floor(Date.now() / 1000 / STEP_S) + delta;
}
