import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What was done so that nothing is lost: backups and rehearsals, when, and how they went. Written by the commands that do it. */
export class Care1764800000000 implements MigrationInterface {
  name = 'Care1764800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE shop_care (
        id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
        at timestamptz NOT NULL DEFAULT now(),
        what text NOT NULL CHECK (what IN ('backup', 'rehearsal')),
        is_good boolean NOT NULL,
        words text NOT NULL
      );
      CREATE INDEX shop_care_last ON shop_care (what, at DESC)
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE shop_care');
  }
}
