import type { PageEvent } from '@jubb/wire';
import type { Client } from './client.ts';

/** An open event stream: what it was told, and whether it is open still. */
export interface Stream {
  readonly status: number;
  said(): readonly PageEvent[];
  isOpen(): boolean;
  close(): void;
}

export async function openStream(base: string, client: Client): Promise<Stream> {
  const leave = new AbortController();
  const response = await fetch(`${base}/api/v1/stream`, { headers: { cookie: client.cookie }, signal: leave.signal });
  let said = '';
  let open = response.ok;
  void (async () => {
    const decoder = new TextDecoder();
    try {
      for await (const chunk of response.body!) said += decoder.decode(chunk as Uint8Array, { stream: true });
    } catch {
      // Cut in the middle: it is over all the same.
    }
    open = false;
  })();
  const events = (): readonly PageEvent[] =>
    said
      .split('\n\n')
      .slice(0, -1)
      .filter((event) => !event.includes('event: '))
      .flatMap((event) => /^data: (.*)$/mu.exec(event)?.[1] ?? [])
      .map((data) => JSON.parse(data) as PageEvent);
  return { status: response.status, said: events, isOpen: () => open, close: () => leave.abort() };
}

/** Until it holds, for so long at most, ms. */
export async function until(what: () => boolean | Promise<boolean>, patienceMs = 10_000): Promise<void> {
  for (const end = Date.now() + patienceMs; Date.now() < end;) {
    if (await what()) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`still not: ${what.toString()}`);
}
