import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Certificates of licensed practice; tools go out of use, have a picture and the paper of a check; what was changed of tablets and of places is kept, too. */
export class OwnShop1764900000000 implements MigrationInterface {
  name = 'OwnShop1764900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE tool ADD COLUMN retired date, ADD COLUMN retired_why text, ADD COLUMN picture text,
        ADD CHECK ((retired IS NULL) = (retired_why IS NULL));
      ALTER TABLE tool_check ADD COLUMN paper_id uuid REFERENCES paper;
      CREATE TABLE licence (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        person_id uuid NOT NULL REFERENCES person,
        covers text NOT NULL,
        number text NOT NULL,
        given_by text NOT NULL,
        until date,
        paper_id uuid REFERENCES paper,
        kept_by uuid NOT NULL REFERENCES person,
        kept_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE INDEX licence_person ON licence (person_id);
      ALTER TABLE shop_change DROP CONSTRAINT shop_change_what_check,
        ADD CONSTRAINT shop_change_what_check
          CHECK (what IN ('person', 'tool', 'shop', 'customer', 'machine', 'unit', 'tablet', 'place'))
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE tool DROP COLUMN retired, DROP COLUMN retired_why, DROP COLUMN picture;
      ALTER TABLE tool_check DROP COLUMN paper_id;
      DROP TABLE licence;
      DELETE FROM shop_change WHERE what IN ('tablet', 'place');
      ALTER TABLE shop_change DROP CONSTRAINT shop_change_what_check,
        ADD CONSTRAINT shop_change_what_check CHECK (what IN ('person', 'tool', 'shop', 'customer', 'machine', 'unit'))
    `);
  }
}
