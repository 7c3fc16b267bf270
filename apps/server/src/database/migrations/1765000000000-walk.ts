import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is kept is walked through every night, and what was found is kept beside the backups. */
export class Walk1765000000000 implements MigrationInterface {
  name = 'Walk1765000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE shop_care DROP CONSTRAINT shop_care_what_check;
      ALTER TABLE shop_care ADD CONSTRAINT shop_care_what_check CHECK (what IN ('backup', 'rehearsal', 'walk'))
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DELETE FROM shop_care WHERE what = 'walk';
      ALTER TABLE shop_care DROP CONSTRAINT shop_care_what_check;
      ALTER TABLE shop_care ADD CONSTRAINT shop_care_what_check CHECK (what IN ('backup', 'rehearsal'))
    `);
  }
}
