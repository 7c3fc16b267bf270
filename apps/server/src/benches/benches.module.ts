import { Module } from '@nestjs/common';
import { StreamModule } from '../stream/stream.module.js';
import { BenchesController } from './benches.controller.js';
import { BenchesService } from './benches.service.js';

/** Benches and the machines that steps need: when, by whom, and what stands there. */
@Module({ imports: [StreamModule], controllers: [BenchesController], providers: [BenchesService], exports: [BenchesService] })
export class BenchesModule {}
