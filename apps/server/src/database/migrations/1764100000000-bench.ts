import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Tablets that several people share, files, instruments that send, holds as entries. */
export class Bench1764100000000 implements MigrationInterface {
  name = 'Bench1764100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE person ADD COLUMN pin_hash text;

      CREATE TABLE tablet (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        token_hash text NOT NULL UNIQUE,
        name text NOT NULL,
        added_by uuid NOT NULL REFERENCES person,
        added_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE SEQUENCE tablet_number;

      CREATE TABLE file (
        sha256 text PRIMARY KEY,
        type text NOT NULL,
        content bytea NOT NULL,
        kept_by uuid NOT NULL REFERENCES person,
        kept_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE TABLE file_part (
        sha256 text NOT NULL,
        at int NOT NULL,
        content bytea NOT NULL,
        kept_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (sha256, at)
      );
      CREATE INDEX file_part_age ON file_part (kept_at);

      CREATE TABLE instrument (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        tool_id uuid NOT NULL UNIQUE REFERENCES tool,
        tablet_id uuid REFERENCES tablet,
        clicks boolean NOT NULL,
        key_hash text,
        last_n bigint NOT NULL DEFAULT 0,
        last jsonb
      );

      CREATE INDEX entry_hold ON entry (job_id, seq) WHERE kind IN ('hold', 'hold-off');
      CREATE FUNCTION entry_holds() RETURNS trigger LANGUAGE plpgsql AS $$
      BEGIN
        IF NEW.kind = 'strike' AND NOT EXISTS (SELECT 1 FROM entry WHERE id = NEW.strikes AND kind IN ('hold', 'hold-off')) THEN
          RETURN NULL;
        END IF;
        UPDATE job SET hold = (
          SELECT CASE WHEN e.kind = 'hold' THEN e.payload || jsonb_build_object('since', e.taken_at) END
          FROM entry e
          WHERE e.job_id = NEW.job_id AND e.kind IN ('hold', 'hold-off') AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)
          ORDER BY e.seq DESC LIMIT 1
        ) WHERE id = NEW.job_id;
        RETURN NULL;
      END $$;
      CREATE TRIGGER entry_hold AFTER INSERT ON entry FOR EACH ROW WHEN (NEW.kind IN ('hold', 'hold-off', 'strike')) EXECUTE FUNCTION entry_holds();
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TRIGGER entry_hold ON entry;
      DROP FUNCTION entry_holds();
      DROP INDEX entry_hold;
      DROP TABLE instrument, file_part, file, tablet;
      DROP SEQUENCE tablet_number;
      ALTER TABLE person DROP COLUMN pin_hash;
    `);
  }
}
