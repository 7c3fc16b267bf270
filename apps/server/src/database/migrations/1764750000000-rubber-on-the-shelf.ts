import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Of a seal or ring on the shelf: its rubber, and how hard it is. When it was cured is told by its batch's last day. */
export class RubberOnTheShelf1764750000000 implements MigrationInterface {
  name = 'RubberOnTheShelf1764750000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE stock_item ADD COLUMN material text, ADD COLUMN shore int');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE stock_item DROP COLUMN material, DROP COLUMN shore');
  }
}
