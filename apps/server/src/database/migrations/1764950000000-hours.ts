import type { MigrationInterface, QueryRunner } from 'typeorm';

/** When the shop is open; nothing until somebody says so. */
export class Hours1764950000000 implements MigrationInterface {
  name = 'Hours1764950000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shop ADD COLUMN hours jsonb');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shop DROP COLUMN hours');
  }
}
