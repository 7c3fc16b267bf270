import type { MigrationInterface, QueryRunner } from 'typeorm';

/** An entry says in which version of its kind its payload is, so that it can be read however the kind changes. */
export class EntryVersions1764400000000 implements MigrationInterface {
  name = 'EntryVersions1764400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE entry ADD COLUMN version int NOT NULL DEFAULT 1 CHECK (version > 0)');
    await runner.query(replaced(WITHOUT, WITH));
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(replaced(WITH, WITHOUT));
    await runner.query('ALTER TABLE entry DROP COLUMN version');
  }
}

type Texts = readonly [columns: string, values: string];
const WITHOUT: Texts = ['seq, kind, payload,', `given->>'kind', given->'payload',`];
const WITH: Texts = ['seq, kind, version, payload,', `given->>'kind', coalesce((given->>'version')::int, 1), given->'payload',`];

/** `keep_entries` as it was, but for the version that it writes. */
function replaced(before: Texts, after: Texts): string {
  const body = before.reduce(
    (text, one, at) => `replace(${text}, $$${one}$$, $$${after[at]!}$$)`,
    `pg_get_functiondef('keep_entries'::regproc)`,
  );
  return `DO $do$ BEGIN EXECUTE ${body}; END $do$`;
}
