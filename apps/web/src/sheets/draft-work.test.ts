import { beforeEach, describe, expect, test } from '@jest/globals';
import type { SheetFile } from '@jubb/sheet';
import { emptySheet } from '@jubb/sheet/editing';
import { LinkDown, Refusal } from '../link/client.ts';
import { DraftWork } from './draft-work.ts';

const EMPTY = emptySheet({ key: 'hub', make: 'Harrowmere', model: 'TH-6', machine: 'Tractor' }, 'hub');
const part = (ref: string, name: string): SheetFile['parts'][number] => ({ ref, name, quantity: 1 }) as SheetFile['parts'][number];
const START: SheetFile = { ...EMPTY, parts: [part('seal', 'Seal'), part('nut', 'Nut')] };
const renamed = (file: SheetFile, ref: string, name: string): SheetFile => ({
  ...file,
  parts: file.parts.map((one) => (one.ref === ref ? { ...one, name } : one)),
});
const namesOf = ({ parts }: SheetFile): readonly string[] => parts.map(({ name }) => name);

/** A device, and a server that keeps one version after the other. */
function device(): {
  readonly open: () => InstanceType<typeof DraftWork>;
  readonly server: { version: number; file: SheetFile; editedBy: string; fails: Error | undefined; hold: Promise<void> | undefined };
  readonly kept: Map<string, string>;
  readonly pauses: number[];
  readonly wait: () => Promise<void>;
} {
  const server = {
    version: 1,
    file: START,
    editedBy: 'Bram',
    fails: undefined as Error | undefined,
    hold: undefined as Promise<void> | undefined,
  };
  const kept = new Map<string, string>();
  const pauses: number[] = [];
  let later: (() => void) | undefined;
  const needs = {
    save: async (_: string, version: number, file: SheetFile) => {
      await server.hold;
      if (server.fails) throw server.fails;
      if (version !== server.version)
        throw new Refusal({ type: 'urn:jubb:changed', code: 'changed', title: 'changed', status: 409, current: { ...server } });
      Object.assign(server, { version: version + 1, file });
      return { version: version + 1 };
    },
    saved: () => undefined,
    read: (name: string) => kept.get(name),
    write: (name: string, text: string | undefined) => void (text === undefined ? kept.delete(name) : kept.set(name, text)),
    after: (work: () => void, ms: number) => {
      pauses.push(ms);
      later = work;
      return () => (later = undefined);
    },
  };
  return {
    open: () => {
      const work = new DraftWork({ revisionId: 'draft', version: server.version, file: server.file }, needs);
      work.subscribe(() => undefined);
      return work;
    },
    server,
    kept,
    pauses,
    wait: async () => {
      const due = later;
      later = undefined;
      due?.();
      for (let turn = 0; turn < 10; turn += 1) await Promise.resolve();
    },
  };
}

describe('a draft', () => {
  let at: ReturnType<typeof device>;
  let work: InstanceType<typeof DraftWork>;
  const change = (ref: string, name: string): void => work.change(work.snapshot().file, renamed(work.snapshot().file, ref, name));
  beforeEach(() => {
    at = device();
    work = at.open();
  });

  test('is on this device at once, and at the server a moment later', async () => {
    change('seal', 'Hub seal');
    expect([work.snapshot().keeping, at.kept.size]).toEqual(['keeping', 1]);
    await at.wait();
    expect([work.snapshot().keeping, at.kept.size, namesOf(at.server.file), at.server.version]).toEqual([
      'kept',
      0,
      ['Hub seal', 'Nut'],
      2,
    ]);
  });

  test('goes back and forth; a new change ends what could be done again', () => {
    change('seal', 'A');
    change('seal', 'B');
    work.undo();
    expect(namesOf(work.snapshot().file)).toEqual(['A', 'Nut']);
    work.redo();
    expect(namesOf(work.snapshot().file)).toEqual(['B', 'Nut']);
    work.undo();
    work.undo();
    expect([namesOf(work.snapshot().file), work.snapshot().canUndo]).toEqual([['Seal', 'Nut'], false]);
    change('nut', 'C');
    expect(work.snapshot().canRedo).toBe(false);
    work.redo();
    expect(namesOf(work.snapshot().file)).toEqual(['Seal', 'C']);
  });

  test('what goes back all the way needs no keeping any more', () => {
    change('seal', 'A');
    work.undo();
    expect([work.snapshot().keeping, at.kept.size]).toEqual(['kept', 0]);
  });

  test('at most a hundred changes are taken back', () => {
    for (let count = 0; count < 120; count += 1) change('seal', `S${count}`);
    for (let count = 0; count < 120; count += 1) work.undo();
    expect(namesOf(work.snapshot().file)[0]).toBe('S19');
  });

  test('waits for the link, and outlives a reload', async () => {
    at.server.fails = new LinkDown('away');
    change('seal', 'Hub seal');
    await at.wait();
    expect([work.snapshot().keeping, at.pauses.at(-1)]).toEqual(['held', 5000]);
    const again = at.open();
    expect(namesOf(again.snapshot().file)).toEqual(['Hub seal', 'Nut']);
    at.server.fails = undefined;
    await at.wait();
    expect([again.snapshot().keeping, namesOf(at.server.file)]).toEqual(['kept', ['Hub seal', 'Nut']]);
  });

  test('is brought together with what somebody else kept, line by line', async () => {
    change('seal', 'Hub seal');
    Object.assign(at.server, { version: 2, file: renamed(START, 'nut', 'Hub nut') });
    await at.wait();
    expect([namesOf(work.snapshot().file), work.snapshot().joined, work.snapshot().clashes]).toEqual([['Hub seal', 'Hub nut'], 'Bram', []]);
    await at.wait();
    expect([namesOf(at.server.file), at.server.version]).toEqual([['Hub seal', 'Hub nut'], 3]);
    change('nut', 'Nut again');
    expect(work.snapshot().joined).toBeUndefined();
  });

  test.each([
    ['mine', 'My seal'],
    ['theirs', 'Their seal'],
  ] as const)('a line that both changed waits for a word: %s', async (whose, name) => {
    change('seal', 'My seal');
    Object.assign(at.server, { version: 2, file: renamed(START, 'seal', 'Their seal') });
    await at.wait();
    const [clash] = work.snapshot().clashes;
    expect([work.snapshot().keeping, clash?.ref, at.server.version]).toEqual(['clash', 'seal', 2]);
    await at.wait();
    expect(at.server.version).toBe(2);
    work.settle(clash!, whose);
    await at.wait();
    expect(namesOf(work.snapshot().file)[0]).toBe(name);
    expect(namesOf(at.server.file)[0]).toBe(name);
  });

  test('what others kept comes in by itself while nothing here waits, and not over what does', () => {
    work.heard({ revisionId: 'draft', version: 5, file: renamed(START, 'nut', 'Hub nut') });
    expect(namesOf(work.snapshot().file)).toEqual(['Seal', 'Hub nut']);
    change('seal', 'Mine');
    work.heard({ revisionId: 'draft', version: 6, file: START });
    expect(namesOf(work.snapshot().file)).toEqual(['Mine', 'Hub nut']);
    work.heard({ revisionId: 'draft', version: 4, file: START });
    expect(work.snapshot().version).toBe(5);
  });

  test('a change made of an older picture keeps what came in since', () => {
    const seen = work.snapshot().file;
    work.heard({ revisionId: 'draft', version: 2, file: renamed(START, 'nut', 'Hub nut') });
    work.change(seen, renamed(seen, 'seal', 'Mine'));
    expect(namesOf(work.snapshot().file)).toEqual(['Mine', 'Hub nut']);
  });

  test('what is refused says why, and is not sent again until it is changed', async () => {
    const problem = { type: 'urn:jubb:bad-input', code: 'bad-input', title: 'no', status: 400 } as const;
    at.server.fails = new Refusal(problem);
    change('seal', '');
    await at.wait();
    expect([work.snapshot().keeping, (work.snapshot().refusal as Error).message]).toEqual(['refused', 'no']);
    at.server.fails = undefined;
    await at.wait();
    expect(at.server.version).toBe(1);
    change('seal', 'Hub seal');
    await at.wait();
    expect([work.snapshot().keeping, work.snapshot().refusal, at.server.version]).toEqual(['kept', undefined, 2]);
  });

  test('what is changed while a save is under way is saved after it', async () => {
    let go = (): void => undefined;
    at.server.hold = new Promise((resolve) => (go = resolve));
    change('seal', 'A');
    await at.wait();
    change('seal', 'B');
    go();
    at.server.hold = undefined;
    await at.wait();
    await at.wait();
    expect([work.snapshot().keeping, namesOf(at.server.file), at.server.version]).toEqual(['kept', ['B', 'Nut'], 3]);
  });
});
