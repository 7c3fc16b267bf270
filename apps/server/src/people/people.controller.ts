import type { PersonView } from '@jubb/book';
import {
  ENDPOINTS,
  LoginBody,
  PinBody,
  SecondBody,
  SecondOffBody,
  SwapBody,
  type SecondView,
  type SessionView,
  type TabletView,
} from '@jubb/wire';
import { randomBytes } from 'node:crypto';
import { Body, Controller, Inject, Req, Res } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { DataSource } from 'typeorm';
import { ProblemError } from '../common/problem.js';
import { TabletsService } from '../tablets/tablets.service.js';
import { personOf } from '../common/access.guard.js';
import { LoginLimit } from './login-limit.js';
import { PeopleService } from './people.service.js';
import { SecondFactorService } from './second-factor.service.js';
import type { Config } from '../config.js';
import { CONFIG } from '../tokens.js';
import { shopView } from './shop.controller.js';

@Controller('api/v1')
export class PeopleController {
  constructor(
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(LoginLimit) private readonly limit: LoginLimit,
    @Inject(SecondFactorService) private readonly second: SecondFactorService,
    @Inject(TabletsService) private readonly tablets: TabletsService,
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Route(ENDPOINTS.session.logIn)
  async logIn(
    @Body() body: LoginBody,
    @Req() request: FastifyRequest,
    @Res({ passthrough: true }) reply: FastifyReply,
  ): Promise<SessionView> {
    const attempt = await this.limit.begin('password', body.login);
    const person = await this.people.verify(body.login, body.password);
    await this.second.check(person.id, body.code);
    await attempt.succeeded();
    const tablet = await this.tablets.remember(request, reply, person.id);
    await renew(request, person, [], tablet);
    return this.#view(request, tablet);
  }

  /** Another person takes over a tablet that knows them; those who were here before stay known to its session. */
  @Route(ENDPOINTS.session.swap)
  async swap(@Body() body: SwapBody, @Req() request: FastifyRequest): Promise<SessionView> {
    const { person, tablet } = await this.#byPin(body, request);
    await renew(request, person, request.session.people ?? [], tablet);
    return this.#view(request, tablet);
  }

  /** Somebody who stands beside proves who they are; who is at the tablet stays there. */
  @Route(ENDPOINTS.session.prove)
  async prove(@Body() body: SwapBody, @Req() request: FastifyRequest): Promise<SessionView> {
    const { person, tablet } = await this.#byPin(body, request);
    request.session.people = [...(request.session.people ?? []).filter(({ id }) => id !== person.id), person];
    return this.#view(request, tablet);
  }

  async #byPin(
    { personId, pin }: SwapBody,
    request: FastifyRequest,
  ): Promise<{ readonly person: PersonView; readonly tablet: TabletView }> {
    const tablet = await this.tablets.of(request);
    if (!tablet || !(await this.tablets.knows(tablet.id, personId)))
      throw new ProblemError('pin-not-here', { detail: 'Log in on this tablet with your password once' });
    const attempt = await this.limit.begin('pin', personId);
    const person = await this.people.verifyPin(personId, pin);
    await attempt.succeeded();
    return { person, tablet };
  }

  @Route(ENDPOINTS.session.setPin)
  setPin(@Body() { pin, password }: PinBody, @Req() request: FastifyRequest): Promise<void> {
    return this.#ifItIs(request, password, ({ id }) => this.people.setPin(id, pin));
  }

  @Route(ENDPOINTS.session.second)
  secondOf(@Req() request: FastifyRequest): Promise<SecondView> {
    return this.second.view(personOf(request));
  }

  @Route(ENDPOINTS.session.setSecond)
  setSecond(@Body() { password, ...body }: SecondBody, @Req() request: FastifyRequest): Promise<void> {
    return this.#ifItIs(request, password, (person) => this.second.begin(person, body));
  }

  @Route(ENDPOINTS.session.dropSecond)
  dropSecond(@Body() { password }: SecondOffBody, @Req() request: FastifyRequest): Promise<void> {
    return this.#ifItIs(request, password, (person) => this.second.end(person.id, person));
  }

  /** Whoever is at the tablet shows by the password that it is they. */
  async #ifItIs(request: FastifyRequest, password: string, act: (person: PersonView) => Promise<void>): Promise<void> {
    const { login } = personOf(request);
    const attempt = await this.limit.begin('password', login);
    const person = await this.people.verify(login, password);
    await attempt.succeeded();
    await act(person);
  }

  @Route(ENDPOINTS.session.current)
  async current(@Req() request: FastifyRequest): Promise<SessionView> {
    return this.#view(request, await this.tablets.of(request));
  }

  @Route(ENDPOINTS.session.logOut)
  async logOut(@Req() request: FastifyRequest): Promise<void> {
    await request.session.destroy();
  }

  async #view(request: FastifyRequest, tablet: TabletView | null): Promise<SessionView> {
    return {
      person: personOf(request),
      csrf: request.session.csrf ?? '',
      shop: await shopView(this.dataSource),
      tablet,
      people: (request.session.people ?? []).map(({ id }) => id),
      command: this.config.command,
    };
  }
}

/** A fresh session, so that one that somebody planted is worth nothing. */
async function renew(request: FastifyRequest, person: PersonView, before: readonly PersonView[], tablet: TabletView): Promise<void> {
  await request.session.regenerate();
  request.session.options({ secure: request.protocol === 'https' });
  request.session.person = person;
  request.session.people = [...before.filter(({ id }) => id !== person.id), person];
  request.session.tabletId = tablet.id;
  request.session.csrf = randomBytes(24).toString('base64url');
}
