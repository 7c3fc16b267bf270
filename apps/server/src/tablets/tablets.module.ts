import { Module } from '@nestjs/common';
import { StreamModule } from '../stream/stream.module.js';
import { NetworkController } from './network.controller.js';
import { TabletsController } from './tablets.controller.js';
import { TabletsService } from './tablets.service.js';

/** The tablets and screens that somebody logged in on. */
@Module({
  imports: [StreamModule],
  controllers: [TabletsController, NetworkController],
  providers: [TabletsService],
  exports: [TabletsService],
})
export class TabletsModule {}
