import { ENDPOINTS, type ServerEvent } from '@jubb/wire';
import { Controller, Inject, Req, Sse } from '@nestjs/common';
import { Route } from '../common/route.js';
import type { FastifyRequest } from 'fastify';
import { concatMap, endWith, filter, from, ignoreElements, interval, map, merge, share, takeUntil, type Observable } from 'rxjs';
import { TodayService } from './today.service.js';
import { personOf } from '../common/access.guard.js';
import { isOpen, sessionMark } from '../common/session.js';
import { StreamService } from '../stream/stream.service.js';

const BEAT_MS = 20_000;

@Controller('api/v1')
export class StreamController {
  readonly #told: Observable<string>;

  constructor(
    @Inject(StreamService) private readonly stream: StreamService,
    @Inject(TodayService) private readonly today: TodayService,
  ) {
    // Written once for all pages.
    this.#told = stream.events.pipe(
      filter((event) => event.type !== 'session-over'),
      map((event) => JSON.stringify(event)),
      share(),
    );
  }

  /** Server-sent events to one open page, as long as its session lasts; a beat keeps proxies from closing it. */
  @Sse('stream')
  @Route(ENDPOINTS.stream.events)
  events(@Req() request: FastifyRequest): Observable<{ data: string | object; type?: string }> {
    const { events, missed } = this.stream;
    const { role } = personOf(request);
    const mark = sessionMark(request.session.sessionId);
    const told = merge(this.#told, this.today.told.pipe(map((byRole) => byRole[role]))).pipe(map((data) => ({ data })));
    const beats = interval(BEAT_MS).pipe(
      concatMap(() => from(isOpen(request))),
      share(),
    );
    const isOver = merge(
      events.pipe(filter((event: ServerEvent) => event.type === 'session-over' && event.session === mark)),
      beats.pipe(filter((open) => !open)),
    );
    const beat = beats.pipe(map(() => ({ data: {}, type: 'beat' })));
    // What happened while nobody listened is asked for on a new link, which the page makes by itself.
    return merge(told, beat).pipe(takeUntil(merge(missed, isOver, events.pipe(ignoreElements(), endWith(undefined)))));
  }
}
