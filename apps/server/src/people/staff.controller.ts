import type { CareView } from '@jubb/book';
import { isInstant } from '@jubb/sheet/given';
import { ENDPOINTS, LicenceBody, NewPersonBody, PasswordBody, PersonBody, type ChangeLine, type PersonLine } from '@jubb/wire';
import { Body, Controller, Inject, Param, ParseUUIDPipe, Query, Req } from '@nestjs/common';
import type { FastifyRequest } from 'fastify';
import { personOf } from '../common/access.guard.js';
import { findText } from '../common/find-text.js';
import { badInput } from '../common/problem.js';
import { Route } from '../common/route.js';
import { PeopleService } from './people.service.js';
import { SecondFactorService } from './second-factor.service.js';

/** Who works here, and what was changed of the shop's own lists. */
@Controller('api/v1')
export class StaffController {
  constructor(
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(SecondFactorService) private readonly second: SecondFactorService,
  ) {}

  @Route(ENDPOINTS.people.list)
  list(): Promise<readonly PersonLine[]> {
    return this.people.list();
  }

  @Route(ENDPOINTS.people.add)
  add(@Body() body: NewPersonBody, @Req() request: FastifyRequest): Promise<PersonLine> {
    return this.people.begin(body, personOf(request));
  }

  @Route(ENDPOINTS.people.change)
  change(@Param('id', ParseUUIDPipe) id: string, @Body() body: PersonBody, @Req() request: FastifyRequest): Promise<PersonLine> {
    return this.people.change(id, body, personOf(request));
  }

  @Route(ENDPOINTS.people.newPassword)
  newPassword(@Param('id', ParseUUIDPipe) id: string, @Body() body: PasswordBody, @Req() request: FastifyRequest): Promise<void> {
    return this.people.newPassword(id, body, personOf(request));
  }

  /** Where the telephone is lost. */
  @Route(ENDPOINTS.people.dropSecond)
  async dropSecond(@Param('id', ParseUUIDPipe) id: string, @Req() request: FastifyRequest): Promise<PersonLine> {
    await this.second.end(id, personOf(request));
    return this.people.line(id);
  }

  @Route(ENDPOINTS.people.addLicence)
  addLicence(@Param('id', ParseUUIDPipe) id: string, @Body() body: LicenceBody, @Req() request: FastifyRequest): Promise<PersonLine> {
    return this.people.addLicence(id, body, personOf(request));
  }

  @Route(ENDPOINTS.people.dropLicence)
  dropLicence(@Param('id', ParseUUIDPipe) id: string, @Req() request: FastifyRequest): Promise<PersonLine> {
    return this.people.dropLicence(id, personOf(request));
  }

  @Route(ENDPOINTS.shop.care)
  care(): Promise<readonly CareView[]> {
    return this.people.care();
  }

  @Route(ENDPOINTS.shop.changes)
  changes(@Query('find') find?: unknown, @Query('before') before?: unknown): Promise<readonly ChangeLine[]> {
    if (before !== undefined && !isInstant(before))
      throw badInput([{ field: 'before', allowed: 'must be a time, such as 2027-03-01T09:30:00Z' }]);
    return this.people.changes(findText(find), before);
  }
}
