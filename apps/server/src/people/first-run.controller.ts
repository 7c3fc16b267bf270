import { ENDPOINTS, FirstRunBody } from '@jubb/wire';
import { Body, Controller, Inject } from '@nestjs/common';
import { Route } from '../common/route.js';
import { PeopleService } from './people.service.js';

@Controller('api/v1')
export class FirstRunController {
  constructor(@Inject(PeopleService) private readonly people: PeopleService) {}

  /** Opens an empty shop. Anyone may, once: afterwards it is refused. */
  @Route(ENDPOINTS.firstRun.open)
  open(@Body() body: FirstRunBody): Promise<void> {
    return this.people.openShop(body);
  }
}
