import { Module } from '@nestjs/common';
import { OutboxService } from './outbox.service.js';

/** What leaves the shop, until it is answered. */
@Module({ providers: [OutboxService], exports: [OutboxService] })
export class OutboxModule {}
