import { Module } from '@nestjs/common';
import { StreamModule } from '../stream/stream.module.js';
import { NoticesController } from './notices.controller.js';
import { NoticesService } from './notices.service.js';

/** What somebody has to know, until they put it away. */
@Module({ imports: [StreamModule], controllers: [NoticesController], providers: [NoticesService], exports: [NoticesService] })
export class NoticesModule {}
