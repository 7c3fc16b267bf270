import { Inject, Injectable } from '@nestjs/common';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { DataSource } from 'typeorm';
import { ProblemError } from '../common/problem.js';
import { poolOf } from '../database/data-source.js';

/** Wrong tries in so many seconds; four digits are soon guessed. */
const LIMITS = {
  password: { points: 8, duration: 300 },
  pin: { points: 5, duration: 900 },
} as const;

type Proof = keyof typeof LIMITS;

/** Wrong passwords of one name from one place, or wrong PINs of one person at one tablet, counted over all server processes. */
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
    this.#limiters = { password: limiter('password'), pin: limiter('pin') };
  }

  /** `from` is a place or a tablet, `who` a name or a person's id. */
  async begin(proof: Proof, from: string, who: string): Promise<{ succeeded(): Promise<void> }> {
    const key = `${from}:${who.toLowerCase().slice(0, 60)}`;
    try {
      await this.#limiters[proof].consume(key);
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error;
      const minutes = Math.ceil(error.msBeforeNext / 60_000);
      const way = proof === 'pin' ? 'log in with the password' : 'ask the foreman';
      throw new ProblemError(429, `Too many tries. Wait ${minutes} min, or ${way}`);
    }
    return {
      succeeded: async () => {
        await this.#limiters[proof].delete(key);
      },
    };
  }
}
