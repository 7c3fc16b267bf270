import { beforeEach, describe, expect, test } from '@jest/globals';
import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import type { AnyKeptEntry } from '@jubb/book';
import type { OutboxNeeds } from './outbox.ts';
import { LinkDown, Refusal, ServerFails } from './client.ts';
import { Outbox } from './outbox.ts';

let tablets = 0;

type Sent = Parameters<OutboxNeeds['send']>;

/** A tablet with a store of its own, a network that does as it is told, and a clock that stands until it is moved. */
async function tablet(): Promise<{
  readonly outbox: InstanceType<typeof Outbox>;
  readonly sent: Sent[];
  readonly kept: string[];
  readonly network: { answer: (...sent: Sent) => Promise<readonly AnyKeptEntry[]> };
  readonly pauses: number[];
  readonly wait: () => Promise<void>;
  readonly stored: () => Promise<readonly string[]>;
}> {
  const db = await openDB(`tablet-${(tablets += 1)}`, 1, {
    upgrade: (fresh) => {
      fresh.createObjectStore('held', { keyPath: 'id' });
      fresh.createObjectStore('files', { keyPath: 'sha' });
    },
  });
  const sent: Sent[] = [];
  const kept: string[] = [];
  const pauses: number[] = [];
  let later: (() => void) | undefined;
  let ids = 0;
  const network = { answer: (...[, entries]: Sent) => Promise.resolve(entries as unknown as readonly AnyKeptEntry[]) };
  const outbox = new Outbox({
    store: () => Promise.resolve(db as never),
    send: (...asked) => {
      sent.push(asked);
      return network.answer(...asked);
    },
    kept: (_, entries) => kept.push(...entries.map(({ id }) => id)),
    id: () => `0${(ids += 1)}`,
    now: () => '2027-03-01T09:00:00.000Z',
    soon: (work) => work(),
    after: (work, ms) => {
      pauses.push(ms);
      later = work;
      return () => (later = undefined);
    },
    files: () => Promise.resolve(),
  });
  /** Until everything that is under way has come to rest. */
  const rest = async (): Promise<void> => {
    for (let turn = 0; turn < 50; turn += 1) await new Promise((done) => setImmediate(done));
  };
  return {
    outbox,
    sent,
    kept,
    network,
    pauses,
    wait: async () => {
      const due = later;
      later = undefined;
      due?.();
      await rest();
    },
    stored: async () => ((await db.getAll('held')) as { id: string }[]).map(({ id }) => id),
  };
}

const note = (text: string): { kind: 'note'; payload: object } => ({ kind: 'note', payload: { text } });
const idsOf = (sent: readonly Sent[]): readonly (readonly string[])[] => sent.map(([, entries]) => entries.map(({ id }) => id));

describe('the outbox', () => {
  let at: Awaited<ReturnType<typeof tablet>>;
  beforeEach(async () => {
    at = await tablet();
    await at.outbox.begin('ilka', []);
  });

  test('an entry is on the screen at once, safe on the device, and sent once in its order', async () => {
    const adding = at.outbox.add('job', [note('one'), note('two')]);
    expect(at.outbox.snapshot().map(({ id }) => id)).toEqual(['01', '02']);
    await adding;
    await at.wait();
    expect(idsOf(at.sent)).toEqual([['01', '02']]);
    expect(at.kept).toEqual(['01', '02']);
    expect([at.outbox.snapshot(), await at.stored()]).toEqual([[], []]);
  });

  test('without a link it waits, longer each time, and keeps everything', async () => {
    at.network.answer = () => Promise.reject(new LinkDown('away'));
    await at.outbox.add('job', [note('one')]);
    await at.wait();
    await at.wait();
    expect(at.pauses).toEqual([500, 1000, 2000].slice(0, at.pauses.length));
    expect(at.pauses.length).toBeGreaterThan(1);
    expect([at.outbox.isStuck(), await at.stored()]).toEqual([true, ['01']]);
    at.network.answer = (...[, entries]) => Promise.resolve(entries as never);
    await at.wait();
    expect([at.outbox.isStuck(), at.outbox.snapshot(), at.kept]).toEqual([false, [], ['01']]);
  });

  test('of a batch that is refused the one at fault is found; the others are kept', async () => {
    const problem = { type: 'urn:jubb:bad-input', code: 'bad-input', title: 'no', status: 400 } as const;
    at.network.answer = (...[, entries]) =>
      entries.some(({ id }) => id === '02') ? Promise.reject(new Refusal(problem)) : Promise.resolve(entries as never);
    await at.outbox.add('job', [note('one'), note('two'), note('three')]);
    await at.wait();
    expect(at.kept).toEqual(['01', '03']);
    expect(at.outbox.snapshot().map(({ id, refused }) => [id, refused?.code])).toEqual([['02', 'bad-input']]);
    expect(await at.stored()).toEqual(['02']);
    at.network.answer = (...[, entries]) => Promise.resolve(entries as never);
    await at.outbox.settle('02', 'retry');
    await at.wait();
    // Under the id that it had: it may have been kept all the same.
    expect(at.kept).toEqual(['01', '03', '02']);
  });

  test('an entry at which the server fails alone is set aside after four tries, and the next one goes on', async () => {
    at.network.answer = (...[, entries]) =>
      entries.some(({ id }) => id === '01') ? Promise.reject(new ServerFails('breaks')) : Promise.resolve(entries as never);
    await at.outbox.add('job', [note('one')]);
    await at.outbox.add('job', [note('two')]);
    for (let tries = 0; tries < 5; tries += 1) await at.wait();
    expect(at.kept).toEqual(['02']);
    expect(at.outbox.snapshot().map(({ id, refused }) => [id, refused?.code])).toEqual([['01', 'broken']]);
  });

  test('what somebody made who is not known here waits for them', async () => {
    at.network.answer = () => Promise.reject(new LinkDown('away'));
    await at.outbox.add('job', [note('of Ilka')]);
    at.network.answer = (...[, entries]) => Promise.resolve(entries as never);
    await at.outbox.begin('bram', []);
    await at.wait();
    expect([at.kept, at.outbox.snapshot().length]).toEqual([[], 1]);
    await at.outbox.begin('bram', ['ilka']);
    await at.wait();
    expect(at.kept).toEqual(['01']);
    expect(at.sent.at(-1)?.[2]).toBe('ilka');
  });

  test('entries of two jobs are two requests', async () => {
    at.network.answer = () => Promise.reject(new LinkDown('away'));
    await at.outbox.add('job', [note('one')]);
    await at.outbox.add('other', [note('two')]);
    await at.wait();
    at.network.answer = (...[, entries]) => Promise.resolve(entries as never);
    const before = at.sent.length;
    await at.wait();
    expect(at.sent.slice(before).map(([job, entries]) => [job, entries.map(({ id }) => id)])).toEqual([
      ['job', ['01']],
      ['other', ['02']],
    ]);
  });
});
