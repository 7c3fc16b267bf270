import type { InstrumentView, SessionView } from '@jubb/wire';
import { expect } from '@jest/globals';
import { StandIn, standInFor, type StandInLine } from '@jubb/core';
import type { Hand } from './browser.ts';
import type { Client } from './client.ts';

export interface Paired {
  readonly toolId: string;
  readonly standIn: StandIn;
  send(...lines: readonly StandInLine[]): Promise<void>;
}

/** Pairs an instrument with the tablet that a hand holds, and sends as it does. */
export async function paired(api: Client, hand: Hand, tag: string): Promise<Paired> {
  const { tablet } = await hand.page.evaluate(async () => (await (await fetch('/api/v1/session')).json()) as SessionView);
  const { id, tool, clicks, last } = (await api.get<InstrumentView[]>('/instruments')).find((one) => one.tool.tag === tag)!;
  await api.call('PUT', `/instruments/${id}/tablet`, { tabletId: tablet?.id });
  const send = async (...lines: readonly StandInLine[]): Promise<void> => {
    const body = lines.map((line) => JSON.stringify(line)).join('\n');
    const answer = await api.call('POST', `/instruments/${id}/lines`, body, { 'content-type': 'application/x-ndjson' });
    expect(answer.status).toBe(200);
  };
  return { toolId: tool.id, standIn: new StandIn(standInFor(tool, clicks), 7, last?.n ?? 0), send };
}
