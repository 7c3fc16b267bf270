import { Module } from '@nestjs/common';
import { TabletsController } from './tablets.controller.js';
import { TabletsService } from './tablets.service.js';

/** The tablets and screens that somebody logged in on. */
@Module({ controllers: [TabletsController], providers: [TabletsService], exports: [TabletsService] })
export class TabletsModule {}
