import { expect, test } from '@jest/globals';
import { Subject } from 'rxjs';
import { PinsService } from './pins.service.js';

const pin = (revisionId: string): object[] => [{ revisionId, scope: null, shaping: [] }];

/** What jobs go by, over a database that answers when it is told to, and sheets that only note which revision was asked for. */
function service(): {
  readonly asked: string[];
  readonly tell: () => void;
  readonly miss: () => void;
  readonly answers: ((rows: object[]) => void)[];
  readonly ask: () => Promise<unknown>;
} {
  const events = new Subject<object>();
  const missed = new Subject<void>();
  const answers: ((rows: object[]) => void)[] = [];
  const asked: string[] = [];
  const query = (): Promise<object> => new Promise((resolve) => answers.push((rows) => resolve({ rows })));
  const manager = { dataSource: { driver: { master: { query } } } };
  const sheets = {
    pinned: (revisionId: string) => {
      asked.push(revisionId);
      return Promise.reject(new Error('far enough'));
    },
  };
  const pins = new PinsService(sheets as never, { events, missed, isDeaf: false } as never);
  return {
    asked,
    answers,
    tell: () => events.next({ type: 'job', jobId: 'job' }),
    miss: () => missed.next(),
    ask: () => pins.sheetOf(manager as never, 'job').catch(() => undefined),
  };
}

test('the revision of a job is asked for once, and again when the job is told to have changed', async () => {
  const { asked, answers, tell, ask } = service();
  const first = ask();
  answers[0]!(pin('old'));
  await first;
  await ask();
  expect([asked, answers.length]).toEqual([['old', 'old'], 1]);
  tell();
  const third = ask();
  answers[1]!(pin('new'));
  await third;
  expect(asked).toEqual(['old', 'old', 'new']);
});

test('what was read before the job changed, and comes after, is not kept for the next one', async () => {
  const { asked, answers, tell, ask } = service();
  const slow = ask();
  tell();
  answers[0]!(pin('old'));
  await slow;
  const next = ask();
  answers[1]!(pin('new'));
  await next;
  expect(asked).toEqual(['old', 'new']);
});

test('a process that heard nothing for a while drops what it remembers', async () => {
  const { asked, answers, miss, ask } = service();
  const first = ask();
  answers[0]!(pin('old'));
  await first;
  miss();
  const next = ask();
  answers[1]!(pin('new'));
  await next;
  expect(asked).toEqual(['old', 'new']);
});
