import { QuoteBody, type QuoteView } from '@jubb/book';
import { ENDPOINTS, AnswerBody, type AnswerDue, type MessageView, type OfferView, type SentQuote } from '@jubb/wire';
import { Body, Controller, Inject, Param, ParseUUIDPipe, Req, Res, StreamableFile } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { ProblemError, notFound } from '../common/problem.js';
import { makerOf } from '../common/access.guard.js';
import { LoginLimit } from '../people/login-limit.js';
import { QuotesService } from './quotes.service.js';

@Controller('api/v1')
export class QuotesController {
  constructor(
    @Inject(QuotesService) private readonly quotes: QuotesService,
    @Inject(LoginLimit) private readonly limit: LoginLimit,
  ) {}

  @Route(ENDPOINTS.quotes.ofJob)
  ofJob(@Param('id', ParseUUIDPipe) id: string): Promise<readonly QuoteView[]> {
    return this.quotes.ofJob(id);
  }

  @Route(ENDPOINTS.quotes.send)
  send(@Param('id', ParseUUIDPipe) id: string, @Body() body: QuoteBody, @Req() request: FastifyRequest): Promise<SentQuote> {
    return this.quotes.send(id, body, makerOf(request, undefined));
  }

  @Route(ENDPOINTS.quotes.newLink)
  newLink(@Param('id', ParseUUIDPipe) id: string, @Param('quote', ParseUUIDPipe) quote: string): Promise<SentQuote> {
    return this.quotes.newLink(id, quote);
  }

  @Route(ENDPOINTS.quotes.takeLinkBack)
  takeLinkBack(@Param('id', ParseUUIDPipe) id: string, @Param('quote', ParseUUIDPipe) quote: string): Promise<readonly QuoteView[]> {
    return this.quotes.takeLinkBack(id, quote);
  }

  @Route(ENDPOINTS.quotes.open)
  open(): Promise<readonly AnswerDue[]> {
    return this.quotes.open();
  }

  @Route(ENDPOINTS.quotes.messages)
  messages(): Promise<readonly MessageView[]> {
    return this.quotes.messages();
  }

  /** For the customer, who has nothing but the link. */
  @Route(ENDPOINTS.quotes.offer)
  offer(@Param('token') token: string, @Req() request: FastifyRequest): Promise<OfferView> {
    return this.#counted(request, () => this.quotes.offer(token));
  }

  @Route(ENDPOINTS.quotes.picture)
  async picture(
    @Param('token') token: string,
    @Param('sha') sha: string,
    @Req() request: FastifyRequest,
    @Res({ passthrough: true }) reply: FastifyReply,
  ): Promise<StreamableFile> {
    const picture = await this.#counted(request, () => this.quotes.picture(token, sha));
    if (!picture) throw notFound('picture in this quote');
    void reply.header('Cache-Control', 'private, max-age=86400');
    return new StreamableFile(picture.content, { type: picture.type });
  }

  @Route(ENDPOINTS.quotes.answer)
  answer(@Param('token') token: string, @Body() body: AnswerBody, @Req() request: FastifyRequest): Promise<OfferView> {
    // Whoever works here has a name of their own, and no customer's word.
    if (request.session.person)
      throw new ProblemError('customer-alone', {
        detail: `You are logged in as ${request.session.person.name}; open the link where nobody is`,
      });
    return this.#counted(request, () => this.quotes.answer(token, body));
  }

  /** Wrong links are counted by where they come from; a right one takes the count back. */
  async #counted<T>(request: FastifyRequest, work: () => Promise<T>): Promise<T> {
    const tries = await this.limit.begin('link', request.ip);
    try {
      const result = await work();
      await tries.succeeded();
      return result;
    } catch (error) {
      // A right link with an answer that cannot be taken is no wrong link.
      if (!(error instanceof ProblemError) || error.problem.status !== 404) await tries.succeeded();
      throw error;
    }
  }
}
