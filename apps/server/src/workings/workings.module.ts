import { Module } from '@nestjs/common';
import { WorkingsController } from './workings.controller.js';

/** The workings, for whoever asks without a page. */
@Module({ controllers: [WorkingsController] })
export class WorkingsModule {}
