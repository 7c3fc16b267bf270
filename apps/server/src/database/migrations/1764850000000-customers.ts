import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A customer has an address, and is changed by whoever knows better; two that are one become one. */
export class Customers1764850000000 implements MigrationInterface {
  name = 'Customers1764850000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE customer ADD COLUMN email text, ADD COLUMN address text, ADD COLUMN version int NOT NULL DEFAULT 1;
      ALTER TABLE shop_change DROP CONSTRAINT shop_change_what_check,
        ADD CONSTRAINT shop_change_what_check CHECK (what IN ('person', 'tool', 'shop', 'customer', 'machine', 'unit'))
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE customer DROP COLUMN email, DROP COLUMN address, DROP COLUMN version;
      DELETE FROM shop_change WHERE what IN ('customer', 'machine', 'unit');
      ALTER TABLE shop_change DROP CONSTRAINT shop_change_what_check,
        ADD CONSTRAINT shop_change_what_check CHECK (what IN ('person', 'tool', 'shop'))
    `);
  }
}
