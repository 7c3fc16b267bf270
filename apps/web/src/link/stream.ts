import { addressOf } from './client.ts';
import { ENDPOINTS, type PageEvent } from '@jubb/wire';

export interface Hearing {
  readonly onEvent: (event: PageEvent) => void;
  readonly onLive: (live: boolean) => void;
  /** The server answered, and would not have us: the log-in is gone. */
  readonly onRefused: () => void;
}

type Told = { readonly event: PageEvent } | { readonly live: boolean } | 'are you live?';

const NAME = 'jubb-stream';
const RETRY_MS = 3000;

/**
 * Listens to the server's events until the returned function is called. All pages of one browser
 * share one stream: a browser allows six connections to a server, and a stream takes one for good.
 */
export function openStream(hearing: Hearing): () => void {
  let close = open(hearing);
  // A page that the browser puts aside for "back" must not keep the stream from the others.
  const aside = (): void => close();
  const back = (event: PageTransitionEvent): void => {
    if (event.persisted) close = open(hearing);
  };
  window.addEventListener('pagehide', aside);
  window.addEventListener('pageshow', back);
  return () => {
    window.removeEventListener('pagehide', aside);
    window.removeEventListener('pageshow', back);
    close();
  };
}

function open(hearing: Hearing): () => void {
  // Without a certificate there are no locks: then each page has a stream of its own.
  if (!('locks' in navigator)) return listen(hearing);
  const channel = new BroadcastChannel(NAME);
  const leave = new AbortController();
  let live = false;
  let stop: (() => void) | undefined;
  const tell = (told: Told): void => channel.postMessage(told);
  channel.onmessage = ({ data }: MessageEvent<Told>) => {
    if (data === 'are you live?') {
      if (stop) tell({ live });
    } else if ('event' in data) hearing.onEvent(data.event);
    else hearing.onLive(data.live);
  };
  tell('are you live?');
  const lead = (): Promise<void> =>
    new Promise((resolve) => {
      const stopListening = listen({
        ...hearing,
        onEvent: (event) => {
          hearing.onEvent(event);
          tell({ event });
        },
        onLive: (now) => {
          live = now;
          hearing.onLive(now);
          tell({ live: now });
        },
      });
      stop = () => {
        stopListening();
        resolve();
      };
    });
  navigator.locks.request(NAME, { signal: leave.signal }, lead).catch((error: unknown) => {
    if (!leave.signal.aborted) throw error;
  });
  return () => {
    leave.abort();
    stop?.();
    channel.close();
  };
}

function listen({ onEvent, onLive, onRefused }: Hearing): () => void {
  let source: EventSource;
  let retry: ReturnType<typeof setTimeout>;
  const connect = (): void => {
    source = new EventSource(addressOf(ENDPOINTS.stream.events));
    source.onopen = () => onLive(true);
    source.onmessage = ({ data }: MessageEvent<string>) => onEvent(JSON.parse(data) as PageEvent);
    source.onerror = () => {
      onLive(false);
      // The browser tries again by itself unless the server answered with a refusal.
      if (source.readyState !== EventSource.CLOSED) return;
      onRefused();
      retry = setTimeout(connect, RETRY_MS);
    };
  };
  connect();
  return () => {
    clearTimeout(retry);
    source.close();
  };
}
