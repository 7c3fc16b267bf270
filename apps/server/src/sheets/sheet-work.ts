import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { ProblemError } from '../common/problem.js';
import type { Config } from '../config.js';
import { CONFIG } from '../tokens.js';
import type { SheetTask, SheetTasks } from './sheet-worker.js';

const MOST_WAITING = 50;
/** A thread that nobody needs for so long is let go, ms: the next has to read all of the checker anew. */
const IDLE_MS = 15 * 60_000;

/**
 * Reads and looks through sheets in threads beside the loop that answers; one that takes too long is ended and
 * refused. What it takes is counted from where its thread begins with it: that threads start slowly, or are busy, is
 * not the sheet's fault.
 */
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
    const { port1: told, port2: begun } = new MessageChannel();
    const late = new AbortController();
    let timer: NodeJS.Timeout | undefined;
    told.once('message', () => (timer = setTimeout(() => late.abort(), this.config.sheetSeconds * 1000)));
    const task: SheetTask = { name, given, begun };
    try {
      return (await this.#pool.run(task, { transferList: [begun], signal: late.signal })) as ReturnType<SheetTasks[N]>;
    } catch (error) {
      const { name: kind, code, message } = error as { name?: string; code?: string; message?: string };
      if (kind === 'AbortError' || code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw new ProblemError('sheet-too-large', {
          detail: `After ${this.config.sheetSeconds} seconds it was given up; nothing of it is kept`,
        });
      if (message?.includes('queue')) throw new ProblemError('sheets-busy');
      throw error;
    } finally {
      clearTimeout(timer);
      told.close();
    }
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#pool.destroy();
  }
}
