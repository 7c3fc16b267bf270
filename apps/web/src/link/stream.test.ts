import { afterEach, beforeEach, expect, test } from '@jest/globals';
import type { PageEvent } from '@jubb/wire';
import { openStream } from './stream.ts';

const page = new EventTarget();
Object.assign(globalThis, { window: page });

/** A stream as the browser has it, open until the server or the page closes it. */
class FakeSource {
  static readonly CLOSED = 2;
  static readonly all: FakeSource[] = [];
  readyState = 1;
  onopen: () => void = () => undefined;
  onmessage: (event: { readonly data: string }) => void = () => undefined;
  onerror: () => void = () => undefined;

  constructor() {
    FakeSource.all.push(this);
  }

  close(): void {
    this.readyState = FakeSource.CLOSED;
  }

  say(event: PageEvent): void {
    this.onmessage({ data: JSON.stringify(event) });
  }

  static get open(): readonly FakeSource[] {
    return FakeSource.all.filter(({ readyState }) => readyState !== FakeSource.CLOSED);
  }
}

/** Locks as the browser has them: one holds it, the others wait in turn (Web Locks API, exclusive mode). */
function fakeLocks(): { request(name: string, options: { signal: AbortSignal }, work: () => Promise<void>): Promise<void> } {
  let turn: Promise<void> = Promise.resolve();
  return {
    request: (_, { signal }, work) => {
      const mine = turn.then(() => (signal.aborted ? undefined : work()));
      turn = mine;
      return mine;
    },
  };
}

/** Messages between pages take a turn or two: waits until it is so, for at most two seconds. */
async function until(isSo: () => boolean): Promise<void> {
  for (const end = Date.now() + 2000; !isSo();) {
    if (Date.now() > end) throw new Error('it does not come to that');
    await new Promise((done) => setImmediate(done));
  }
}
const isOpen = (): boolean => FakeSource.open.length === 1;

interface Ears {
  readonly heard: string[];
  readonly live: boolean[];
  readonly refused: number[];
  readonly close: () => void;
}

function listen(): Ears {
  const heard: string[] = [];
  const live: boolean[] = [];
  const refused: number[] = [];
  const close = openStream({
    onEvent: ({ type }) => heard.push(type),
    onLive: (now) => live.push(now),
    onRefused: () => refused.push(1),
  });
  return { heard, live, refused, close };
}

let opened: Ears[] = [];
const open = (): Ears => {
  const ears = listen();
  opened.push(ears);
  return ears;
};
beforeEach(() => {
  FakeSource.all.length = 0;
  opened = [];
  Object.assign(globalThis, { EventSource: FakeSource });
  Object.defineProperty(globalThis, 'navigator', { value: { locks: fakeLocks() }, configurable: true });
});
afterEach(() => {
  for (const { close } of opened) close();
});

test('two pages of one browser hear all of it by one stream', async () => {
  const [first, second] = [open(), open()];
  await until(isOpen);
  FakeSource.open[0]!.onopen();
  FakeSource.open[0]!.say({ type: 'stores' });
  await until(() => second.heard.length > 0);
  expect(FakeSource.all).toHaveLength(1);
  expect([first.heard, second.heard]).toEqual([['stores'], ['stores']]);
  expect([first.live.at(-1), second.live.at(-1)]).toEqual([true, true]);
});

test('the page that has the stream goes: another takes it over', async () => {
  const [first, second] = [open(), open()];
  await until(isOpen);
  const [before] = FakeSource.open;
  first.close();
  await until(() => isOpen() && FakeSource.open[0] !== before);
  FakeSource.open[0]!.say({ type: 'notices' });
  expect([first.heard, second.heard]).toEqual([[], ['notices']]);
});

test('a page that comes later is told whether there is a link', async () => {
  open();
  await until(isOpen);
  FakeSource.open[0]!.onopen();
  const second = open();
  await until(() => second.live.length > 0);
  expect(second.live).toEqual([true]);
});

test('a page that is put aside lets the stream go, and takes it up when it is shown again', async () => {
  const ears = open();
  await until(isOpen);
  page.dispatchEvent(new Event('pagehide'));
  expect(FakeSource.open).toHaveLength(0);
  page.dispatchEvent(Object.assign(new Event('pageshow'), { persisted: true }));
  await until(isOpen);
  FakeSource.open[0]!.say({ type: 'stores' });
  expect(ears.heard).toEqual(['stores']);
});

test('without locks each page has a stream of its own', () => {
  Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });
  open();
  open();
  expect(FakeSource.open).toHaveLength(2);
});

test('a link that is lost is not live; a server that will not have us is told, and asked again', () => {
  Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });
  const { live, refused } = open();
  const [source] = FakeSource.open;
  source!.onopen();
  source!.readyState = 0;
  source!.onerror();
  expect([live, refused]).toEqual([[true, false], []]);
  source!.readyState = FakeSource.CLOSED;
  source!.onerror();
  expect(refused).toEqual([1]);
});
