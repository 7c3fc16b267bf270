import { Module } from '@nestjs/common';
import { NoticesModule } from '../notices/notices.module.js';
import { DiskWatch } from './disk-watch.js';
import { HealthController } from './health.controller.js';

/** Whether the server is well, and whether its disk is. */
@Module({ imports: [NoticesModule], controllers: [HealthController], providers: [DiskWatch] })
export class HealthModule {}
