import { Inject, Injectable } from '@nestjs/common';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { DataSource } from 'typeorm';
import { ProblemError } from '../common/problem.js';
import { poolOf } from '../database/data-source.js';

/** Wrong tries in so many seconds; four digits are soon guessed, a link never. */
const LIMITS = {
  password: { points: 8, duration: 300 },
  pin: { points: 5, duration: 900 },
  link: { points: 20, duration: 900 },
} as const;

type Proof = keyof typeof LIMITS;

const OTHER_WAY: Readonly<Record<Proof, string>> = {
  password: 'ask the foreman',
  pin: 'log in with the password',
  link: 'ask the shop for the link',
};

/** Wrong passwords of one name from one place, wrong PINs of one person at one tablet, wrong links from one place, counted over all server processes. */
@Injectable()
export class LoginLimit {
  readonly #limiters: Readonly<Record<Proof, RateLimiterPostgres>>;

  constructor(@Inject(DataSource) dataSource: DataSource) {
    const limiter = (proof: Proof): RateLimiterPostgres =>
      new RateLimiterPostgres({
        ...LIMITS[proof],
        storeClient: poolOf(dataSource),
        tableName: 'rate_limit',
        tableCreated: true,
        keyPrefix: proof,
        clearExpiredByTimeout: false,
      });
    this.#limiters = { password: limiter('password'), pin: limiter('pin'), link: limiter('link') };
  }

  /** `from` is a place or a tablet, `who` a name or a person's id. */
  async begin(proof: Proof, from: string, who: string): Promise<{ succeeded(): Promise<void> }> {
    const key = `${from}:${who.toLowerCase().slice(0, 60)}`;
    try {
      await this.#limiters[proof].consume(key);
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error;
      const minutes = Math.ceil(error.msBeforeNext / 60_000);
      throw new ProblemError(429, `Too many tries. Wait ${minutes} min, or ${OTHER_WAY[proof]}`);
    }
    return {
      succeeded: async () => {
        await this.#limiters[proof].delete(key);
      },
    };
  }
}
