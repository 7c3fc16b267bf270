import { expect, test } from '@jest/globals';
import 'fake-indexeddb/auto';
import type { FileState } from '@jubb/wire';
import { openDB } from 'idb';
import { LinkDown, Refusal } from './client.ts';
import { FileBox } from './files.ts';

let tablets = 0;
const PART = 256 * 1024;

/** A tablet with a store of its own, and a server that has some bytes of each file and may fail at any part. */
async function tablet(): Promise<{
  readonly box: InstanceType<typeof FileBox>;
  /** Where each part that came began, and how long it was. */
  readonly came: (readonly [at: number, length: number])[];
  readonly server: { have: number; refuse: Error | undefined };
  readonly waiting: number[];
  readonly wait: () => Promise<void>;
  readonly stored: () => Promise<number>;
  readonly again: () => InstanceType<typeof FileBox>;
}> {
  const db = await openDB(`files-${(tablets += 1)}`, 1, {
    upgrade: (fresh) => {
      fresh.createObjectStore('files', { keyPath: 'sha' });
    },
  });
  const came: (readonly [number, number])[] = [];
  const waiting: number[] = [];
  const server = { have: 0, refuse: undefined as Error | undefined };
  let later: (() => void) | undefined;
  const rest = async (): Promise<void> => {
    for (let turn = 0; turn < 60; turn += 1) await new Promise((done) => setImmediate(done));
  };
  const needs = {
    store: () => Promise.resolve(db as never),
    state: (): Promise<FileState> => Promise.resolve({ have: server.have, whole: server.have === photo.size }),
    keep: (_: string, at: number, total: number, part: Blob): Promise<FileState> => {
      if (server.refuse) return Promise.reject(server.refuse);
      came.push([at, part.size]);
      server.have = at + part.size;
      return Promise.resolve({ have: server.have, whole: server.have === total });
    },
    waiting: (count: number) => void waiting.push(count),
    after: (work: () => void) => {
      later = work;
      return () => (later = undefined);
    },
  };
  return {
    box: new FileBox(needs),
    came,
    server,
    waiting,
    wait: async () => {
      await rest();
      const due = later;
      later = undefined;
      due?.();
      await rest();
    },
    stored: () => db.count('files'),
    again: () => new FileBox(needs),
  };
}

const photo = new Blob([new Uint8Array(PART * 2 + 100)]);

test('a photo goes in parts, and is let go of when the server has all of it', async () => {
  const { box, came, stored, wait, waiting } = await tablet();
  await box.add('sha', photo);
  await wait();
  expect(came).toEqual([
    [0, PART],
    [PART, PART],
    [2 * PART, 100],
  ]);
  expect([await stored(), box.snapshot(), waiting.at(-1)]).toEqual([0, [], 0]);
});

test('after a broken link it goes on where it stopped, in another page too', async () => {
  const { box, came, server, stored, wait, again } = await tablet();
  server.have = PART;
  server.refuse = new LinkDown('away');
  await box.add('sha', photo);
  await wait();
  expect([came, await stored(), box.snapshot().length]).toEqual([[], 1, 1]);
  server.refuse = undefined;
  const later = again();
  await later.begin();
  await wait();
  expect(came).toEqual([
    [PART, PART],
    [2 * PART, 100],
  ]);
  expect(await stored()).toBe(0);
});

test('one that the server will not have stays with the reason, and the next one goes', async () => {
  const { box, server, stored, wait, waiting } = await tablet();
  const problem = { type: 'urn:jubb:no-room', code: 'no-room', title: 'no room', status: 507 } as const;
  server.refuse = new Refusal(problem);
  await box.add('first', photo);
  await wait();
  expect(box.snapshot().map(({ sha, refused }) => [sha, refused?.code])).toEqual([['first', 'no-room']]);
  server.refuse = undefined;
  await box.add('second', photo);
  await wait();
  expect([box.snapshot().map(({ sha }) => sha), await stored(), waiting.at(-1)]).toEqual([['first'], 1, 0]);
});

test.each([401, 409, 429])('a refusal of %s is for now: the photo is tried again', async (status) => {
  const { box, server, wait, stored } = await tablet();
  server.refuse = new Refusal({ type: 'urn:jubb:bad-input', code: 'bad-input', title: 'not now', status });
  await box.add('sha', photo);
  await wait();
  server.refuse = undefined;
  await wait();
  expect([box.snapshot(), await stored()]).toEqual([[], 0]);
});

test('the same photo twice is one', async () => {
  const { box, server } = await tablet();
  server.refuse = new LinkDown('away');
  await box.add('sha', photo);
  await box.add('sha', photo);
  expect(box.snapshot()).toHaveLength(1);
});
