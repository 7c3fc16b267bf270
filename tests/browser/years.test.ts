import type { AnyKeptEntry, JobHead, JobView, NewEntry } from '@jubb/book';
import type { ChainView, SheetLine, SightLine } from '@jubb/wire';
import type { Tool } from '@jubb/sheet';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop({ demo: 'full' });
let oswin: Client;
let jobs: readonly JobHead[];

beforeAll(async () => {
  oswin = await Client.as(shop.server.base, 'oswin');
  const { rows } = await shop.database.query('SELECT id, number FROM job ORDER BY number');
  jobs = rows as unknown as readonly JobHead[];
});

test('what was revised more than once was worked by the last revision that was in force before', async () => {
  const { rows } = await shop.database.query(
    `SELECT s.revision, s.status, count(*)::int AS jobs FROM job j JOIN sheet_revision s ON s.id = j.sheet_revision_id
     WHERE s.key = 'quennet-t4-turbocharger' GROUP BY s.revision, s.status ORDER BY s.revision`,
  );
  expect(rows).toEqual([
    { revision: 2, status: 'superseded', jobs: expect.any(Number) },
    { revision: 3, status: 'approved', jobs: expect.any(Number) },
  ]);
});

test('every chain of the two years is whole', async () => {
  expect(jobs).toHaveLength(640);
  for (const { id, number } of jobs) {
    const { whole } = await oswin.get<ChainView>(`/jobs/${id}/chain`);
    expect([number, whole]).toEqual([number, true]);
  }
});

test('kept by tablets one after the other, a job has the same chain and comes to the same state', async () => {
  const people = new Map<string, Client>();
  const { rows: staff } = await shop.database.query(`SELECT id, login FROM person WHERE login <> 'garrit'`);
  for (const { id, login } of staff as { id: string; login: string }[]) people.set(id, await Client.as(shop.server.base, login));
  const last = new Map<string, string>();
  // Of each sheet the last that was finished, and two that are open.
  const { rows } = await shop.database.query(
    `SELECT s.key, j.id FROM job j JOIN sheet_revision s ON s.id = j.sheet_revision_id
      WHERE NOT EXISTS (SELECT 1 FROM entry e JOIN person p ON p.id = e.person_id WHERE e.job_id = j.id AND p.login = 'garrit')
        AND (j.closed_at IS NOT NULL OR j.number IN (1001, 1003)) ORDER BY j.number`,
  );
  for (const { key, id } of rows as { key: string; id: string }[]) last.set(key, id);
  for (const id of last.values()) {
    const headOf = async (): Promise<object> =>
      (await shop.database.query('SELECT stage, hold, last_seq, last_hash, closed_at IS NULL AS open FROM job WHERE id = $1', [id]))
        .rows[0] as object;
    const [head, job] = [await headOf(), await oswin.get<JobView>(`/jobs/${id}`)];
    await emptyJob(id);
    for (const run of runsOf(job.entries)) await post(people.get(run[0]!.personId)!, id, run);
    expect(await headOf()).toEqual(head);
    const now = await oswin.get<JobView>(`/jobs/${id}`);
    expect(now.entries.map(undated)).toEqual(job.entries.map(undated));
  }
});

const undated = ({ keptAt: _, ...entry }: AnyKeptEntry): object => entry;

/** What no shop can do: takes the entries of a job away, and what they took off the shelves, to keep them again by the ordinary way. */
async function emptyJob(id: string): Promise<void> {
  await shop.database
    .query(`ALTER TABLE entry DISABLE TRIGGER USER; DELETE FROM entry WHERE job_id = '${id}'; ALTER TABLE entry ENABLE TRIGGER USER;
    UPDATE stock_item SET on_hand = on_hand + out.pieces FROM (
      SELECT item_id, sum(CASE kind WHEN 'issue' THEN quantity ELSE -quantity END) AS pieces FROM stock_movement
      WHERE job_id = '${id}' AND kind IN ('issue', 'return') GROUP BY item_id) out WHERE out.item_id = stock_item.id;
    ALTER TABLE stock_movement DISABLE TRIGGER USER; DELETE FROM stock_movement WHERE job_id = '${id}';
    ALTER TABLE stock_movement ENABLE TRIGGER USER;
    UPDATE job SET stage = 'book-in', hold = NULL, closed_at = NULL, last_seq = 0, last_hash = '' WHERE id = '${id}'`);
}

/** Runs of entries by one person. */
function runsOf(entries: readonly AnyKeptEntry[]): readonly (readonly AnyKeptEntry[])[] {
  const runs: AnyKeptEntry[][] = [];
  for (const entry of entries) {
    if (runs.at(-1)?.[0]?.personId === entry.personId) runs.at(-1)!.push(entry);
    else runs.push([entry]);
  }
  return runs;
}

async function post(person: Client, id: string, run: readonly AnyKeptEntry[]): Promise<void> {
  const MOST = 40;
  for (let from = 0; from < run.length; from += MOST) {
    const entries = run.slice(from, from + MOST).map(({ id: entryId, kind, payload, step, toolId, strikes, takenAt }): NewEntry => ({
      id: entryId,
      kind,
      payload,
      takenAt,
      ...(step === null ? {} : { step }),
      ...(toolId === null ? {} : { toolId }),
      ...(strikes === null ? {} : { strikes }),
    }));
    const answer = await person.post(id, ...entries);
    expect([answer.status, answer.status === 200 ? undefined : answer.body]).toEqual([200, undefined]);
  }
}

describe.each(['ilka', 'oswin', 'perla', 'joss'])('every page, as %s sees it', (login) => {
  // What differs between them is what they may: how a page is made is looked at once.
  const isLookedAt = login === 'oswin';

  test('opens on something, without a fault', async () => {
    const client = await Client.as(shop.server.base, login);
    const hand = await Hand.at(shop.screen.browser, shop.server.base);
    const faults: string[] = [];
    hand.page.on('pageerror', (error) => faults.push((error as Error).message));
    await hand.logIn(login);
    hand.page.on('response', (response) => response.status() >= 400 && faults.push(`${response.status()} ${response.url()}`));
    const [sheets, tools, sights, stock] = [
      await client.get<SheetLine[]>('/sheets'),
      await client.get<Tool[]>('/tools'),
      await client.get<SightLine[]>('/demo/sights'),
      await client.get<{ id: string }[]>('/stock'),
    ];
    expect(sights.length).toBe(10);
    const finished = jobs[580]!.id;
    const pages = [
      '/',
      '/jobs',
      '/sheets',
      `/sheets/${sheets[0]!.revisionId}`,
      '/workings',
      '/stores',
      `/stores/${stock[0]!.id}`,
      '/stores/shims',
      '/stores/orders',
      ...(login === 'joss' || login === 'ilka' ? [] : ['/stores/messages']),
      '/crib',
      `/crib/tools/${tools[8]!.id}`,
      '/crib/instruments',
      '/learn',
      '/look',
      `/jobs/${finished}`,
      `/jobs/${finished}/report`,
      ...new Set(sights.map(({ path }) => path)),
    ];
    for (const path of pages) {
      await hand.go(path);
      await hand.page.waitForSelector('h1');
      // Until nothing is waited for any more: a photo that was on its way when a page was left is counted for ever.
      await hand.page.waitForFunction(() => document.querySelector('main .spinner-border, .bench .spinner-border') === null);
      await hand.page.evaluate(async () => void (await new Promise(requestAnimationFrame)));
      const empty = await hand.page.$$eval('tbody', (bodies) => bodies.filter((body) => body.children.length === 0).length);
      expect([path, empty]).toEqual([path, 0]);
      if (isLookedAt) expect([path, await hand.faults()]).toEqual([path, []]);
    }
    expect(faults).toEqual([]);
    await hand.page.browserContext().close();
  });
});

test('what there is to see opens the right place', async () => {
  const hand = await Hand.at(shop.screen.browser, shop.server.base);
  await hand.logIn('ilka');
  await hand.use('What to look at');
  await hand.heads('What to look at');
  await hand.use('A torque run in the middle');
  await hand.heads('Wheel nuts, left, pass 3 of 4');
});
