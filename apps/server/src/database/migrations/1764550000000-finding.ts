import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Jobs are found by their complaint and the name of their unit, sheets by the beginnings of their words, each through an
 * index; and the demo says where to look first. Signs between words are no part of them: "T4-45w" is "t4" and "45w".
 */
export class Finding1764550000000 implements MigrationInterface {
  name = 'Finding1764550000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE INDEX job_complaint ON job USING gin (complaint gin_trgm_ops);
      CREATE INDEX unit_name ON unit USING gin (name gin_trgm_ops);
      CREATE FUNCTION plain_words(given text) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
        SELECT regexp_replace(lower(given), '[^[:alnum:]]+', ' ', 'g') $$;
      CREATE FUNCTION words_begin(given text) RETURNS tsquery LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
        SELECT to_tsquery('simple', (SELECT string_agg(quote_literal(lexeme) || ':*', ' & ') FROM unnest(to_tsvector('simple', plain_words(given))))) $$;
      DROP INDEX sheet_body;
      ALTER TABLE sheet_revision DROP COLUMN body,
        ADD COLUMN lexemes tsvector GENERATED ALWAYS AS (to_tsvector('simple', plain_words(sheet_text(file)))) STORED;
      CREATE INDEX sheet_lexemes ON sheet_revision USING gin (lexemes);
      CREATE TABLE demo_sight (
        place int PRIMARY KEY,
        words text NOT NULL,
        path text NOT NULL
      );
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE demo_sight;
      DROP INDEX sheet_lexemes;
      ALTER TABLE sheet_revision DROP COLUMN lexemes, ADD COLUMN body text GENERATED ALWAYS AS (sheet_text(file)) STORED;
      CREATE INDEX sheet_body ON sheet_revision USING gin (body gin_trgm_ops);
      DROP FUNCTION words_begin(text), plain_words(text);
      DROP INDEX unit_name, job_complaint;
    `);
  }
}
