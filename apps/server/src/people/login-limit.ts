import { cutText } from '@jubb/sheet';
import { Inject, Injectable } from '@nestjs/common';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { DataSource } from 'typeorm';
import { ProblemError } from '../common/problem.js';
import { poolOf } from '../database/data-source.js';
import { Person } from '../database/entities/index.js';
import { NoticesService } from '../notices/notices.service.js';

/** So many wrong tries are free; after each one more the wait doubles. Four digits are soon guessed, a link never. */
const FREE = { password: 5, pin: 5, link: 20 } as const;
const FIRST_WAIT_S = 30;
const LONGEST_WAIT_S = 15 * 60;
/** Tries are forgotten after a day without a right one. */
const DAY_S = 24 * 3600;

type Proof = keyof typeof FREE;

const OTHER_WAY: Readonly<Record<Proof, string>> = {
  password: 'ask the foreman',
  pin: 'log in with the password',
  link: 'ask the shop for the link',
};

/**
 * Wrong tries at the password or PIN of one person, from wherever they come, and at links from one place; counted over
 * all server processes. A try counts before it is looked at, so that many at once are no way round.
 */
@Injectable()
export class LoginLimit {
  readonly #tries: RateLimiterPostgres;
  readonly #waits: RateLimiterPostgres;

  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(NoticesService) private readonly notices: NoticesService,
  ) {
    const limiter = (keyPrefix: string, points: number): RateLimiterPostgres =>
      new RateLimiterPostgres({
        points,
        duration: DAY_S,
        storeClient: poolOf(dataSource),
        tableName: 'rate_limit',
        tableCreated: true,
        keyPrefix,
        clearExpiredByTimeout: false,
      });
    this.#tries = limiter('tries', Number.MAX_SAFE_INTEGER);
    this.#waits = limiter('wait', 1);
  }

  /** `whom` is meant: a log-in name however it is typed, a person's id, or the place that tries links. */
  async begin(proof: Proof, whom: string): Promise<{ succeeded(): Promise<void> }> {
    const key = `${proof}:${cutText(whom.normalize('NFKC').trim().toLowerCase(), 60)}`;
    const { consumedPoints } = await this.#tries.penalty(key, 1);
    const over = consumedPoints - FREE[proof];
    if (over >= 0) {
      await this.#wait(proof, key, Math.min(LONGEST_WAIT_S, FIRST_WAIT_S * 2 ** Math.min(over, 20)));
      if (proof !== 'link') await this.#tell(proof, whom, consumedPoints);
    }
    return {
      succeeded: async () => {
        await Promise.all([this.#tries.delete(key), this.#waits.delete(key)]);
      },
    };
  }

  /** Whoever it is that is tried has to know, and the foreman. */
  async #tell(proof: 'password' | 'pin', whom: string, tries: number): Promise<void> {
    const person = await this.dataSource.manager.findOneBy(Person, proof === 'pin' ? { id: whom } : { login: whom.trim().toLowerCase() });
    if (!person) return;
    await this.notices.tell(
      `tries:${proof}:${person.id}`,
      `${tries} tries at the ${proof === 'pin' ? 'PIN' : 'password'} of ${person.name} in a row, and none was right. If that was not ${person.name}, it is to be changed.`,
      person.id,
    );
  }

  /** One try begins the wait; whoever comes before it is over waits, and that does not count. */
  async #wait(proof: Proof, key: string, customDuration: number): Promise<void> {
    try {
      await this.#waits.consume(key, 1, { customDuration });
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error;
      await this.#tries.reward(key, 1);
      const seconds = Math.ceil(error.msBeforeNext / 1000);
      const wait = seconds < 60 ? `${seconds} s` : `${Math.ceil(seconds / 60)} min`;
      throw new ProblemError('too-many-tries', { named: { wait, other: OTHER_WAY[proof] } });
    }
  }
}
