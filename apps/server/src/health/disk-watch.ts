import { statfs } from 'node:fs/promises';
import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { Config } from '../config.js';
import { NoticesService } from '../notices/notices.service.js';
import { CONFIG } from '../tokens.js';

const LOOK_MS = 60_000;
/** Room that comes and goes about the limit is no news each minute. */
const CLEAR_BY = 1.2;
const TOPIC = 'disk';

/** Tells everybody when the disk is nearly full, while there is still time to make room. */
@Injectable()
export class DiskWatch implements OnApplicationBootstrap, OnApplicationShutdown {
  readonly #log = new Logger('disk');
  #isTold = false;
  #looking: NodeJS.Timeout | undefined;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(NoticesService) private readonly notices: NoticesService,
  ) {}

  onApplicationBootstrap(): void {
    const look = (): void => {
      void this.#look().finally(() => {
        this.#looking = setTimeout(look, LOOK_MS).unref();
      });
    };
    look();
  }

  onApplicationShutdown(): void {
    clearTimeout(this.#looking);
  }

  async #look(): Promise<void> {
    try {
      const { bavail, blocks, bsize } = await statfs(this.config.dataFolder);
      const free = blocks > 0 ? bavail / blocks : 1;
      if (free < this.config.diskWarnShare && !this.#isTold) {
        const left = ((bavail * bsize) / 1e9).toFixed(1);
        await this.notices.tell(
          TOPIC,
          `The disk of the server has ${Math.floor(free * 100)} % left, ${left} GB. Make room: when it is full, nothing more can be kept.`,
          null,
        );
        this.#isTold = true;
      } else if (free > this.config.diskWarnShare * CLEAR_BY) {
        await this.notices.takeBack(TOPIC);
        this.#isTold = false;
      }
    } catch (error) {
      this.#log.warn(`the disk could not be looked at: ${error instanceof Error ? error.message : String(error)}`);
    }
  }
}
