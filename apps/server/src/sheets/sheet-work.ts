import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { Piscina } from 'piscina';
import { ProblemError } from '../common/problem.js';
import type { Config } from '../config.js';
import { CONFIG } from '../tokens.js';
import type { SheetTask, SheetTasks } from './sheet-worker.js';

const MOST_WAITING = 50;
/** A thread that nobody needs for so long is let go, ms. */
const IDLE_MS = 60_000;

/** Reads and looks through sheets in threads beside the loop that answers; one that takes too long is ended and refused. */
@Injectable()
export class SheetWork implements OnApplicationShutdown {
  readonly #pool = new Piscina({
    filename: new URL('sheet-worker.js', import.meta.url).href,
    minThreads: 0,
    maxThreads: 2,
    maxQueue: MOST_WAITING,
    idleTimeout: IDLE_MS,
    resourceLimits: { maxOldGenerationSizeMb: 512 },
  });

  constructor(@Inject(CONFIG) private readonly config: Config) {}

  async run<N extends keyof SheetTasks>(name: N, ...given: Parameters<SheetTasks[N]>): Promise<ReturnType<SheetTasks[N]>> {
    const task: SheetTask = { name, given };
    try {
      return (await this.#pool.run(task, { signal: AbortSignal.timeout(this.config.sheetSeconds * 1000) })) as ReturnType<SheetTasks[N]>;
    } catch (error) {
      const { name: kind, code, message } = error as { name?: string; code?: string; message?: string };
      if (kind === 'AbortError' || code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw new ProblemError('sheet-too-large', {
          detail: `After ${this.config.sheetSeconds} seconds it was given up; nothing of it is kept`,
        });
      if (message?.includes('queue')) throw new ProblemError('sheets-busy');
      throw error;
    }
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#pool.destroy();
  }
}
