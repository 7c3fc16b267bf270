import { Module } from '@nestjs/common';
import { StreamModule } from '../stream/stream.module.js';
import { StoresController } from './stores.controller.js';
import { StoresService } from './stores.service.js';

/** The shelves, and what moves on them. */
@Module({ imports: [StreamModule], controllers: [StoresController], providers: [StoresService], exports: [StoresService] })
export class StoresModule {}
