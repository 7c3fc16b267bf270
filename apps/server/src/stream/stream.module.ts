import { Module } from '@nestjs/common';
import { StreamService } from './stream.service.js';

/** What the processes tell each other, and what pages hear of it. */
@Module({ providers: [StreamService], exports: [StreamService] })
export class StreamModule {}
