import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The shop's tax, margin and rules of renewal; shims by their thickness. */
export class ShopBook1764200000000 implements MigrationInterface {
  name = 'ShopBook1764200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE shop
        ADD COLUMN tax_share float8 NOT NULL DEFAULT 0.2 CHECK (tax_share BETWEEN 0 AND 1),
        ADD COLUMN margin_share float8 NOT NULL DEFAULT 0.35 CHECK (margin_share >= 0),
        ADD COLUMN rules jsonb NOT NULL DEFAULT '[]';
      ALTER TABLE stock_item ADD COLUMN thickness_mm float8 CHECK (thickness_mm > 0);
      UPDATE stock_item SET thickness_mm = nullif(substring(replace(size, ',', '.') FROM '[0-9]+(?:\\.[0-9]+)?')::float8, 0) WHERE kind = 'shim';
      CREATE INDEX stock_item_shims ON stock_item (thickness_mm) WHERE thickness_mm IS NOT NULL;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE stock_item DROP COLUMN thickness_mm;
      ALTER TABLE shop DROP COLUMN tax_share, DROP COLUMN margin_share, DROP COLUMN rules;
    `);
  }
}
