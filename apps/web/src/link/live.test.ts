import { expect, test } from '@jest/globals';
import type { PageEvent } from '@jubb/wire';
import { linkWords, offWords, takeIn } from './live.ts';

/** What a page does with an event, in words. */
function doneWith(event: PageEvent): readonly string[] {
  const done: string[] = [];
  takeIn(event, {
    refresh: ({ queryKey }) => done.push(`ask ${JSON.stringify(queryKey)}`),
    lines: (lines) => done.push(`${lines.length} lines`),
    file: (sha) => done.push(`file ${sha}`),
    today: ({ gone }) => done.push(`today without ${gone.join()}`),
    entries: (jobId, seq) => done.push(`entries of ${jobId} to ${seq}`),
  });
  return done;
}

test.each([
  [{ type: 'entries', jobId: 'j', seq: 7 }, ['entries of j to 7']],
  [{ type: 'file', file: 'abc' }, ['file abc']],
  [{ type: 'lines', lines: [] }, ['0 lines']],
  [{ type: 'today', lines: [], clocks: [], gone: ['k'] }, ['today without k']],
  [{ type: 'job', jobId: 'j' }, ['ask ["job","j"]', 'ask ["jobs"]']],
  [{ type: 'sheet' }, ['ask ["sheets"]', 'ask ["job"]', 'ask ["today"]']],
  [{ type: 'notices' }, ['ask ["today"]']],
  [{ type: 'stores' }, ['ask ["stores"]']],
  [{ type: 'benches' }, ['ask ["benches"]']],
  [{ type: 'instruments' }, ['ask ["instruments"]']],
] as readonly [PageEvent, readonly string[]][])('of %j the page takes in: %j', (event, done) => {
  expect(doneWith(event)).toEqual(done);
});

const calm = { live: true, stuck: false, held: 0, refused: 0, orphans: 0, unsafe: 0, pictures: 0, aheadMs: 0 };

test.each([
  [{}, 'live'],
  [{ live: false }, 'no link'],
  [{ held: 3 }, '3 held, sending'],
  [{ held: 3, stuck: true }, '3 held, no link'],
  [{ held: 3, live: false }, '3 held, no link'],
  [{ held: 1, refused: 1 }, 'live, 1 refused'],
  [{ held: 2, orphans: 1 }, '1 held, sending, 1 held until their maker logs in'],
  [{ pictures: 1 }, 'live, 1 file to send'],
  [{ pictures: 2 }, 'live, 2 files to send'],
  [{ held: 1, unsafe: 1 }, '1 held, sending, this tablet is full: 1 on the screen only, keep the page open'],
  [{ aheadMs: 2 * 60_000 }, 'live'],
  [{ aheadMs: 2 * 60_000 + 1 }, 'live, this tablet’s clock is 2 min fast'],
])('of the link with %j it says "%s"', (state, words) => {
  expect(linkWords({ ...calm, ...state })).toBe(words);
});

test('a clock is off in minutes up to two hours, then in hours', () => {
  expect([119.4 * 60_000, 120 * 60_000, -25 * 3_600_000].map(offWords)).toEqual(['119 min fast', '2 h fast', '25 h slow']);
});
