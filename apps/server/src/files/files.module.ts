import { Module } from '@nestjs/common';
import { StreamModule } from '../stream/stream.module.js';
import { FilesController } from './files.controller.js';
import { FilesService } from './files.service.js';

/** Photos and clips, by their content. */
@Module({ imports: [StreamModule], controllers: [FilesController], providers: [FilesService], exports: [FilesService] })
export class FilesModule {}
