import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Who works here changes: people leave and are never deleted. What a foreman changes is kept, with what was there before. */
export class PeopleAndChanges1764700000000 implements MigrationInterface {
  name = 'PeopleAndChanges1764700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE person ADD COLUMN left_at timestamptz, ADD COLUMN version int NOT NULL DEFAULT 1;
      CREATE TABLE shop_change (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        at timestamptz NOT NULL DEFAULT now(),
        person_id uuid NOT NULL REFERENCES person,
        what text NOT NULL CHECK (what IN ('person', 'tool', 'shop')),
        subject text NOT NULL,
        act text NOT NULL,
        fields jsonb NOT NULL
      );
      CREATE INDEX shop_change_at ON shop_change (at DESC, id)
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE shop_change; ALTER TABLE person DROP COLUMN left_at, DROP COLUMN version');
  }
}
