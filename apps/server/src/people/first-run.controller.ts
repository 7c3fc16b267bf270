import { FirstRunBody } from '@jubb/wire';
import { Body, Controller, HttpCode, Inject, Post } from '@nestjs/common';
import { PeopleService } from './people.service.js';

@Controller('api/v1/first-run')
export class FirstRunController {
  constructor(@Inject(PeopleService) private readonly people: PeopleService) {}

  /** Opens an empty shop. Anyone may, once: afterwards it is refused. */
  @Post()
  @HttpCode(204)
  open(@Body() body: FirstRunBody): Promise<void> {
    return this.people.openShop(body);
  }
}
