import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Tools go out of use, have a picture and the paper of a check; what was changed of tablets and of places is kept, too. */
export class OwnShop1764900000000 implements MigrationInterface {
  name = 'OwnShop1764900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE tool ADD COLUMN retired date, ADD COLUMN retired_why text, ADD COLUMN picture text,
        ADD CHECK ((retired IS NULL) = (retired_why IS NULL));
      ALTER TABLE tool_check ADD COLUMN paper_id uuid REFERENCES paper;
      ALTER TABLE shop_change DROP CONSTRAINT shop_change_what_check,
        ADD CONSTRAINT shop_change_what_check
          CHECK (what IN ('person', 'tool', 'shop', 'customer', 'machine', 'unit', 'tablet', 'place'))
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE tool DROP COLUMN retired, DROP COLUMN retired_why, DROP COLUMN picture;
      ALTER TABLE tool_check DROP COLUMN paper_id;
      DELETE FROM shop_change WHERE what IN ('tablet', 'place');
      ALTER TABLE shop_change DROP CONSTRAINT shop_change_what_check,
        ADD CONSTRAINT shop_change_what_check CHECK (what IN ('person', 'tool', 'shop', 'customer', 'machine', 'unit'))
    `);
  }
}
