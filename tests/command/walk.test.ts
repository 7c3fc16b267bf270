import { createHash } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { clearUnnamed, walkShop } from '../../tools/walk.mjs';
import { letIn } from '../../tools/let-in.mjs';
import { Client } from '../kit/client.ts';
import { demoDatabase, type TestDatabase } from '../kit/database.ts';
import { startServer } from '../kit/server.ts';

let database: TestDatabase;
beforeAll(async () => {
  database = await demoDatabase();
});
afterAll(() => database.drop());

const found = (): Promise<readonly string[]> => walkShop(database.url);

/** As somebody would who has the database to themselves, and for whom nothing is kept. */
async function behindItsBack(table: string, ...texts: readonly string[]): Promise<void> {
  await database.query(`ALTER TABLE ${table} DISABLE TRIGGER USER`);
  for (const text of texts) await database.query(text);
  await database.query(`ALTER TABLE ${table} ENABLE TRIGGER USER`);
}

test('what holds together is walked without a word; each thing that does not is named by where it lies', async () => {
  expect(await found()).toEqual([]);

  // A photo whose entry was kept a month ago, and a file that nobody names; one that is still on its way is neither.
  const bytes = Buffer.from('not a clip');
  const sha = createHash('sha256').update(bytes).digest('hex');
  const keep = (name: string, ago: string): Promise<unknown> =>
    database.query(
      `INSERT INTO file (sha256, type, content, kept_by, kept_at, sent_size) SELECT $1, 'video/webm', $2, id, now() - $3::interval, 10 FROM person LIMIT 1`,
      [name, bytes, ago],
    );
  await keep(sha, '1 day');
  expect(await found()).toEqual([]);
  await database.query(`UPDATE file SET kept_at = now() - interval '40 days'`);
  expect(await found()).toEqual([`1 × files that nothing names: ${sha.slice(0, 12)} (./jubb walk --clear takes them away)`]);
  expect(await clearUnnamed(database.url)).toBe(1);
  expect(await found()).toEqual([]);
  await keep(sha, '40 days');
  await database.query(`UPDATE tool SET picture = $1 WHERE tag = (SELECT min(tag) FROM tool)`, [sha]);
  expect(await found()).toEqual([]);
  expect(await clearUnnamed(database.url)).toBe(0);
  const other = 'ab'.repeat(32);
  await keep(other, '1 day');
  expect(await found()).toEqual([
    expect.stringMatching(new RegExp(`^1 × files that are not what they were sent as: ${other.slice(0, 12)} \\(`, 'u')),
  ]);
  await database.query('DELETE FROM file WHERE sha256 = $1', [other]);

  const { rows: shelves } = await database.query('SELECT number, on_hand FROM stock_item ORDER BY number LIMIT 1');
  const { number, on_hand: held } = shelves[0] as { number: string; on_hand: string };
  const holds = (amount: number | string): Promise<unknown> =>
    database.query('UPDATE stock_item SET on_hand = $2 WHERE number = $1', [number, amount]);
  await holds(1_000_000);
  expect(await found()).toEqual([`1 × shelves that hold something else than their last movement left: ${number} (count them)`]);
  await database.query('ALTER TABLE stock_item DROP CONSTRAINT stock_item_on_hand_check');
  await holds(-1);
  expect((await found())[0]).toBe(`1 × shelves with less than nothing on them: ${number} (count them)`);
  await holds(held);

  // An entry that names a photo which never came: its chain does not hold either, for it was written behind the book's back.
  await behindItsBack(
    'entry',
    `UPDATE entry SET kept_at = now() - interval '40 days', payload = payload || '{"file":"${other}"}'
       WHERE id = (SELECT e.id FROM entry e JOIN job j ON j.id = e.job_id WHERE j.number = 402 ORDER BY e.seq LIMIT 1)`,
  );
  expect(await found()).toEqual([
    '1 × entries whose photo or clip never came: job 402, entry 1 (take it again, and strike the entry)',
    expect.stringMatching(/^1 × chains that are broken: job [0-9a-f-]+: entry 1 is not what its hash says \(/u),
  ]);

  // And one whose last entry is gone.
  await behindItsBack(
    'entry',
    `DELETE FROM entry WHERE id = (SELECT e.id FROM entry e JOIN job j ON j.id = e.job_id WHERE j.number = 401 ORDER BY e.seq DESC LIMIT 1)`,
  );
  expect((await found())[0]).toMatch(/^1 × jobs whose head is not its last entry: job 401 \(/u);
});

test('who has no foreman to ask is let in at the machine: a new password, no code, and nobody else’s tablet stays open', async () => {
  const server = await startServer(database.url);
  try {
    const before = await Client.as(server.base, 'oswin');
    await database.query("UPDATE person SET second_secret = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ' WHERE login = 'oswin'");
    await expect(letIn(database.url, 'nobody')).rejects.toThrow('Nobody logs in as "nobody"');
    const password = await letIn(database.url, 'oswin');
    expect(password).toMatch(/^[a-z2-9]{14}$/u);
    await expect(Client.as(server.base, 'oswin')).rejects.toThrow('log-in-wrong');
    const again = await Client.as(server.base, 'oswin', password);
    expect((await before.call('GET', '/jobs')).status).toBe(401);
    expect(JSON.stringify(await again.get('/changes?find=machine'))).toContain('let in from the machine');
  } finally {
    await server.stop();
  }
});
