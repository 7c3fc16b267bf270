import { ENDPOINTS, type BeginView, type ExampleLine, type LackingLine } from '@jubb/wire';
import { Controller, Inject } from '@nestjs/common';
import { Route } from '../common/route.js';
import { BeginService } from './begin.service.js';

/** What a shop that is just opened has and lacks. */
@Controller('api/v1')
export class BeginController {
  constructor(@Inject(BeginService) private readonly begin: BeginService) {}

  @Route(ENDPOINTS.firstRun.view)
  view(): Promise<BeginView> {
    return this.begin.view();
  }

  @Route(ENDPOINTS.firstRun.examples)
  examples(): Promise<readonly ExampleLine[]> {
    return this.begin.exampleLines();
  }

  @Route(ENDPOINTS.firstRun.lacking)
  lacking(): Promise<readonly LackingLine[]> {
    return this.begin.lacking();
  }
}
