import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Sheets that are searched, edited by several and proposed to; jobs with a scope. */
export class Sheets1764050000000 implements MigrationInterface {
  name = 'Sheets1764050000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE EXTENSION IF NOT EXISTS pg_trgm;

      CREATE FUNCTION sheet_text(file jsonb) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
        SELECT lower(coalesce(string_agg(v #>> '{}', ' '), '')) FROM jsonb_path_query(file, '$.** ? (@.type() == "string")') v
      $$;
      CREATE FUNCTION sheet_words(file jsonb) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
        SELECT lower(coalesce(string_agg(v #>> '{}', ' '), '')) FROM (
          SELECT jsonb_path_query(file, '$.parts[*].number') v
          UNION ALL SELECT jsonb_path_query(file, '$.parts[*].designation')
          UNION ALL SELECT jsonb_path_query(file, '$.parts[*].superseded[*].number')
          UNION ALL SELECT jsonb_path_query(file, '$.joints[*].thread')
          UNION ALL SELECT jsonb_path_query(file, '$.variants[*].name')
        ) found
      $$;

      ALTER TABLE sheet_revision
        ADD COLUMN title text GENERATED ALWAYS AS (file->>'title') STORED,
        ADD COLUMN family text GENERATED ALWAYS AS (file->>'family') STORED,
        ADD COLUMN make text GENERATED ALWAYS AS (file->>'make') STORED,
        ADD COLUMN model text GENERATED ALWAYS AS (file->>'model') STORED,
        ADD COLUMN machine text GENERATED ALWAYS AS (file->>'machine') STORED,
        ADD COLUMN words text GENERATED ALWAYS AS (sheet_words(file)) STORED,
        ADD COLUMN body text GENERATED ALWAYS AS (sheet_text(file)) STORED,
        ADD COLUMN yaml text,
        ADD COLUMN complete jsonb NOT NULL DEFAULT '[]',
        ADD COLUMN version int NOT NULL DEFAULT 1,
        ADD COLUMN edited_by uuid REFERENCES person,
        ADD COLUMN edited_at timestamptz NOT NULL DEFAULT now();
      CREATE INDEX sheet_body ON sheet_revision USING gin (body gin_trgm_ops);
      CREATE INDEX sheet_title ON sheet_revision (title, id);
      CREATE INDEX sheet_family ON sheet_revision (family) WHERE status = 'approved';

      ALTER TABLE shop ADD COLUMN hourly_minor int NOT NULL DEFAULT 6000;

      ALTER TABLE shop ADD COLUMN sheets_version bigint NOT NULL DEFAULT 1;
      CREATE FUNCTION sheets_changed() RETURNS trigger LANGUAGE plpgsql AS $$
      BEGIN
        UPDATE shop SET sheets_version = sheets_version + 1;
        RETURN NULL;
      END $$;
      CREATE TRIGGER sheet_changed AFTER INSERT OR UPDATE OR DELETE ON sheet_revision FOR EACH STATEMENT EXECUTE FUNCTION sheets_changed();

      ALTER TABLE job ADD COLUMN scope jsonb;
      CREATE INDEX job_unit ON job (unit_id, booked_at);
      CREATE INDEX job_sheet ON job (sheet_revision_id);
      CREATE INDEX unit_serial ON unit USING gin (serial gin_trgm_ops);
      CREATE INDEX machine_words ON machine USING gin ((name || ' ' || serial) gin_trgm_ops);
      CREATE INDEX customer_name ON customer USING gin (name gin_trgm_ops);
      CREATE INDEX customer_phone ON customer USING gin (phone gin_trgm_ops);

      CREATE TABLE paper (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        name text NOT NULL,
        content bytea NOT NULL,
        sha256 bytea GENERATED ALWAYS AS (sha256(content)) STORED UNIQUE,
        kept_by uuid NOT NULL REFERENCES person,
        kept_at timestamptz NOT NULL DEFAULT now()
      );

      CREATE TABLE proposal_settled (
        entry_id uuid PRIMARY KEY REFERENCES entry,
        how text NOT NULL CHECK (how IN ('taken', 'left')),
        person_id uuid NOT NULL REFERENCES person,
        settled_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE INDEX entry_proposal ON entry (job_id) WHERE kind IN ('next-time', 'value-found');
      CREATE INDEX entry_owed ON entry (job_id) WHERE kind = 'owed';
      CREATE INDEX entry_owed_settled ON entry ((payload->>'owed')) WHERE kind = 'owed-settled';

      CREATE FUNCTION entry_moves_pin() RETURNS trigger LANGUAGE plpgsql AS $$
      BEGIN
        UPDATE job SET sheet_revision_id = (NEW.payload->>'revisionId')::uuid WHERE id = NEW.job_id;
        RETURN NULL;
      END $$;
      CREATE TRIGGER entry_pinned AFTER INSERT ON entry FOR EACH ROW WHEN (NEW.kind = 'pinned') EXECUTE FUNCTION entry_moves_pin();
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TRIGGER sheet_changed ON sheet_revision;
      DROP FUNCTION sheets_changed();
      DROP TRIGGER entry_pinned ON entry;
      DROP FUNCTION entry_moves_pin();
      DROP TABLE proposal_settled, paper;
      DROP INDEX entry_owed_settled, entry_owed, entry_proposal, customer_phone, customer_name, machine_words, unit_serial, job_sheet, job_unit;
      ALTER TABLE job DROP COLUMN scope;
      ALTER TABLE shop DROP COLUMN hourly_minor, DROP COLUMN sheets_version;
      ALTER TABLE sheet_revision DROP COLUMN title, DROP COLUMN family, DROP COLUMN make, DROP COLUMN model, DROP COLUMN machine,
        DROP COLUMN words, DROP COLUMN body, DROP COLUMN yaml, DROP COLUMN complete, DROP COLUMN version, DROP COLUMN edited_by, DROP COLUMN edited_at;
      DROP FUNCTION sheet_text(jsonb);
      DROP FUNCTION sheet_words(jsonb);
    `);
  }
}
