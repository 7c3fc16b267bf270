import { Module } from '@nestjs/common';
import { StreamModule } from '../stream/stream.module.js';
import { InstrumentsController } from './instruments.controller.js';
import { InstrumentsService } from './instruments.service.js';

/** What instruments send by themselves. */
@Module({ imports: [StreamModule], controllers: [InstrumentsController], providers: [InstrumentsService] })
export class InstrumentsModule {}
