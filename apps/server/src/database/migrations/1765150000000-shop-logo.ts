import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What stands at the head of a quote and a report: a file, which may still be on its way. */
export class ShopLogo1765150000000 implements MigrationInterface {
  name = 'ShopLogo1765150000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shop ADD COLUMN logo text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shop DROP COLUMN logo');
  }
}
