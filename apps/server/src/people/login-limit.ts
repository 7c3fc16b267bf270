import { Inject, Injectable } from '@nestjs/common';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { DataSource } from 'typeorm';
import { ProblemError } from '../common/problem.js';
import { poolOf } from '../database/data-source.js';

const TRIES = 8;
const WITHIN_S = 300;

/** Wrong log-ins of one name from one place, counted over all server processes. */
@Injectable()
export class LoginLimit {
  readonly #limiter: RateLimiterPostgres;

  constructor(@Inject(DataSource) dataSource: DataSource) {
    this.#limiter = new RateLimiterPostgres({
      storeClient: poolOf(dataSource),
      tableName: 'rate_limit',
      tableCreated: true,
      keyPrefix: 'login',
      points: TRIES,
      duration: WITHIN_S,
      clearExpiredByTimeout: false,
    });
  }

  async begin(ip: string, login: string): Promise<{ succeeded(): Promise<void> }> {
    const key = `${ip}:${login.toLowerCase().slice(0, 60)}`;
    try {
      await this.#limiter.consume(key);
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error;
      const minutes = Math.ceil(error.msBeforeNext / 60_000);
      throw new ProblemError(429, `Too many tries. Wait ${minutes} min, or ask the foreman`);
    }
    return {
      succeeded: async () => {
        await this.#limiter.delete(key);
      },
    };
  }
}
