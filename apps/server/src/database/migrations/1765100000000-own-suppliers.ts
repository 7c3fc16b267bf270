import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Suppliers of the shop's own, who are written to and called by people; a stand-in plays those of the demo. */
export class OwnSuppliers1765100000000 implements MigrationInterface {
  name = 'OwnSuppliers1765100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE supplier ADD COLUMN by_hand boolean NOT NULL DEFAULT false, ADD COLUMN email text, ADD COLUMN phone text,
        ADD COLUMN account text, ADD COLUMN lead_days int NOT NULL DEFAULT 3 CHECK (lead_days BETWEEN 0 AND 365),
        ADD COLUMN is_gone boolean NOT NULL DEFAULT false, ADD COLUMN version int NOT NULL DEFAULT 1;
      ALTER TABLE shop_change DROP CONSTRAINT shop_change_what_check,
        ADD CONSTRAINT shop_change_what_check
          CHECK (what IN ('person', 'tool', 'shop', 'customer', 'machine', 'unit', 'tablet', 'place', 'supplier'))
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DELETE FROM shop_change WHERE what = 'supplier';
      ALTER TABLE shop_change DROP CONSTRAINT shop_change_what_check,
        ADD CONSTRAINT shop_change_what_check
          CHECK (what IN ('person', 'tool', 'shop', 'customer', 'machine', 'unit', 'tablet', 'place'));
      ALTER TABLE supplier DROP COLUMN by_hand, DROP COLUMN email, DROP COLUMN phone, DROP COLUMN account, DROP COLUMN lead_days,
        DROP COLUMN is_gone, DROP COLUMN version
    `);
  }
}
