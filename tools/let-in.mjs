// ./jubb let-in LOGIN: whoever forgot their password, or lost the telephone with their codes, and has no foreman to ask.
import { randomInt } from 'node:crypto';
import { hash } from '@node-rs/argon2';
import pg from 'pg';
import { Stop, say } from './say.mjs';
import { readState } from './serve.mjs';
import { ensureNodeModules } from './setup.mjs';

/** Letters and digits that are not taken for each other on paper. */
const SIGNS = 'abcdefghjkmnpqrstuvwxyz23456789';
const LETTERS = 14;
/** argon2id as the server has it. */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** A new password, no code and no PIN; what was theirs is over. Gives the password. */
export async function letIn(url, login) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await client.query('BEGIN');
    const {
      rows: [person],
    } = await client.query('SELECT id, name, left_at FROM person WHERE login = $1 FOR UPDATE', [login]);
    if (!person) {
      const { rows } = await client.query('SELECT login FROM person WHERE left_at IS NULL ORDER BY login');
      throw new Stop(`Nobody logs in as "${login}": ${rows.map((one) => one.login).join(', ')}`);
    }
    if (person.left_at !== null) throw new Stop(`${person.name} has left; a foreman takes them back under People`);
    const password = Array.from({ length: LETTERS }, () => SIGNS[randomInt(SIGNS.length)]).join('');
    await client.query(
      `UPDATE person SET password_hash = $2, pin_hash = NULL, second_secret = NULL, second_step = NULL, version = version + 1 WHERE id = $1`,
      [person.id, await hash(password, ARGON)],
    );
    await client.query('DELETE FROM tablet_person WHERE person_id = $1', [person.id]);
    await client.query("DELETE FROM session WHERE sess->'person'->>'id' = $1", [person.id]);
    await client.query(`DELETE FROM rate_limit WHERE key LIKE 'tries:password:' || $1 OR key LIKE 'wait:password:' || $1`, [login]);
    await client.query(
      `INSERT INTO shop_change (person_id, what, subject, act, fields) VALUES ($1, 'person', $2, 'let in from the machine', '[]')`,
      [person.id, person.name],
    );
    await client.query('COMMIT');
    return password;
  } catch (error) {
    await client.query('ROLLBACK');
    throw error;
  } finally {
    await client.end();
  }
}

export async function letInCommand([login]) {
  ensureNodeModules();
  if (login === undefined) throw new Stop('Whom? ./jubb let-in LOGIN');
  const url = process.env.JUBB_DATABASE_URL ?? readState()?.url;
  if (url === undefined) throw new Stop('No shop is running here: ./jubb start');
  const password = await letIn(url, login);
  say(`${login} logs in with ${password}. It is shown this once; PIN and code are none any more, and they are logged out everywhere.`);
}
