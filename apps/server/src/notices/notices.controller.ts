import { Controller, HttpCode, Inject, Param, ParseUUIDPipe, Post, Req } from '@nestjs/common';
import type { Request } from 'express';
import { personOf } from '../people/access.guard.js';
import { NoticesService } from './notices.service.js';

@Controller('api/v1/notices')
export class NoticesController {
  constructor(@Inject(NoticesService) private readonly notices: NoticesService) {}

  /** Read and put away, by whoever it was told to. */
  @Post(':id/seen')
  @HttpCode(204)
  putAway(@Param('id', ParseUUIDPipe) id: string, @Req() request: Request): Promise<void> {
    return this.notices.putAway(id, personOf(request).id);
  }
}
