import { Controller, Inject, Sse } from '@nestjs/common';
import { endWith, ignoreElements, interval, map, merge, takeUntil, type Observable } from 'rxjs';
import { StreamService } from './stream.service.js';

const BEAT_MS = 20_000;

@Controller('api/v1/stream')
export class StreamController {
  constructor(@Inject(StreamService) private readonly stream: StreamService) {}

  /** Server-sent events to one open page; a beat keeps proxies from closing it. */
  @Sse()
  events(): Observable<{ data: object; type?: string }> {
    const { events, missed } = this.stream;
    const told = events.pipe(map((event) => ({ data: event as object })));
    const beat = interval(BEAT_MS).pipe(map(() => ({ data: {}, type: 'beat' })));
    // What happened while nobody listened is asked for on a new link, which the page makes by itself.
    return merge(told, beat).pipe(takeUntil(merge(missed, events.pipe(ignoreElements(), endWith(undefined)))));
  }
}
