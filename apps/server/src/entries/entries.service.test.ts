import type { PersonView } from '@jubb/book';
import { expect, test } from '@jest/globals';
import { Subject } from 'rxjs';
import { EntriesService } from './entries.service.js';

const ILKA = { id: 'ilka', name: 'Ilka', role: 'mechanic' } as unknown as PersonView;
const pin = (revisionId: string): object[] => [{ revisionId, scope: null, found: [] }];

/** The service over a database that answers when it is told to, and sheets that only note which revision was asked for. */
function service(): {
  readonly asked: string[];
  readonly tell: () => void;
  readonly miss: () => void;
  readonly answers: ((rows: object[]) => void)[];
  readonly post: () => Promise<unknown>;
} {
  const events = new Subject<object>();
  const missed = new Subject<void>();
  const answers: ((rows: object[]) => void)[] = [];
  const asked: string[] = [];
  const database = { query: () => new Promise<object[]>((resolve) => answers.push(resolve)) };
  const sheets = {
    pinned: (revisionId: string) => {
      asked.push(revisionId);
      return Promise.reject(new Error('far enough'));
    },
  };
  const entries = new EntriesService(
    database as never,
    sheets as never,
    { events, missed, isDeaf: false, tell: () => undefined } as never,
    {} as never,
  );
  return {
    asked,
    answers,
    tell: () => events.next({ type: 'job', jobId: 'job' }),
    miss: () => missed.next(),
    post: () => entries.post('job', ILKA, []).catch(() => undefined),
  };
}

test('the revision of a job is asked for once, and again when the job is told to have changed', async () => {
  const { asked, answers, tell, post } = service();
  const first = post();
  answers[0]!(pin('old'));
  await first;
  await post();
  expect([asked, answers.length]).toEqual([['old', 'old'], 1]);
  tell();
  const third = post();
  answers[1]!(pin('new'));
  await third;
  expect(asked).toEqual(['old', 'old', 'new']);
});

test('what was read before the job changed, and comes after, is not kept for the next one', async () => {
  const { asked, answers, tell, post } = service();
  const slow = post();
  tell();
  answers[0]!(pin('old'));
  await slow;
  const next = post();
  answers[1]!(pin('new'));
  await next;
  expect(asked).toEqual(['old', 'new']);
});

test('a process that heard nothing for a while drops what it remembers', async () => {
  const { asked, answers, miss, post } = service();
  const first = post();
  answers[0]!(pin('old'));
  await first;
  miss();
  const next = post();
  answers[1]!(pin('new'));
  await next;
  expect(asked).toEqual(['old', 'new']);
});
