import { Module } from '@nestjs/common';
import { JobsModule } from '../jobs/jobs.module.js';
import { StreamModule } from '../stream/stream.module.js';
import { CribController } from './crib.controller.js';
import { CribService } from './crib.service.js';

/** The tools, their checks, and who has them. */
@Module({ imports: [JobsModule, StreamModule], controllers: [CribController], providers: [CribService], exports: [CribService] })
export class CribModule {}
