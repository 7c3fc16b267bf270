import { randomBytes } from 'node:crypto';
import { Body, Controller, Delete, Get, HttpCode, Inject, Post, Req } from '@nestjs/common';
import { LoginBody, type SessionView } from '@jubb/contract';
import type { Request } from 'express';
import { DataSource } from 'typeorm';
import { Shop } from '../database/entities.js';
import { personOf } from './access.guard.js';
import { LoginLimit } from './login-limit.js';
import { PeopleService } from './people.service.js';

@Controller('api/v1/session')
export class PeopleController {
  constructor(
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(LoginLimit) private readonly limit: LoginLimit,
    @Inject(DataSource) private readonly dataSource: DataSource,
  ) {}

  @Post()
  @HttpCode(200)
  async logIn(@Body() body: LoginBody, @Req() request: Request): Promise<SessionView> {
    const attempt = await this.limit.begin(request.ip ?? '', body.login);
    const person = await this.people.verify(body.login, body.password);
    await attempt.succeeded();
    await new Promise<void>((resolve, reject) => {
      request.session.regenerate((error: unknown) => (error ? reject(error as Error) : resolve()));
    });
    request.session.person = person;
    request.session.csrf = randomBytes(24).toString('base64url');
    return this.#view(request);
  }

  @Get()
  current(@Req() request: Request): Promise<SessionView> {
    return this.#view(request);
  }

  @Delete()
  @HttpCode(204)
  async logOut(@Req() request: Request): Promise<void> {
    await new Promise<void>((resolve, reject) => {
      request.session.destroy((error: unknown) => (error ? reject(error as Error) : resolve()));
    });
  }

  async #view(request: Request): Promise<SessionView> {
    const { name, zone, currency, hourlyMinor } = await this.dataSource.getRepository(Shop).findOneByOrFail({ id: 1 });
    return { person: personOf(request), csrf: request.session.csrf ?? '', shop: { name, zone, currency, hourlyMinor } };
  }
}
