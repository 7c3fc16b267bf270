import type { MigrationInterface, QueryRunner } from 'typeorm';
import { KeepSince1764500000000 } from './1764500000000-keep-since.js';

/**
 * Keeps what several tablets sent at once in one round trip and one commit. It waits for nobody and one does not fail for
 * another: whatever cannot be kept just now (the job is somebody else's for the moment, something came since, or it is
 * refused) comes back with a code and nothing kept, and is asked for alone.
 */
export class KeepBatches1764600000000 implements MigrationInterface {
  name = 'KeepBatches1764600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE FUNCTION keep_batches(batches jsonb, kinds text[]) RETURNS TABLE (batch int, code text, kept entry) LANGUAGE plpgsql AS $$
      DECLARE
        given record;
        the_job uuid;
      BEGIN
        FOR given IN SELECT number, one FROM jsonb_array_elements(batches) WITH ORDINALITY AS listed(one, number) LOOP
          batch := given.number;
          code := NULL;
          kept := NULL;
          the_job := (given.one->>'jobId')::uuid;
          PERFORM 1 FROM job WHERE id = the_job FOR NO KEY UPDATE SKIP LOCKED;
          IF NOT FOUND THEN
            code := 'JB423';
          ELSIF EXISTS (SELECT 1 FROM entry WHERE job_id = the_job AND seq > (given.one->>'upTo')::int AND kind = ANY (kinds)) THEN
            code := 'JB412';
          END IF;
          IF code IS NOT NULL THEN
            RETURN NEXT;
            CONTINUE;
          END IF;
          BEGIN
            FOR kept IN SELECT * FROM keep_entries(the_job, (given.one->>'personId')::uuid, given.one->'entries') LOOP
              RETURN NEXT;
            END LOOP;
          EXCEPTION WHEN OTHERS THEN
            code := SQLSTATE;
            RETURN NEXT;
          END;
        END LOOP;
      END $$
    `);
    await runner.query('DROP FUNCTION keep_entries_if(uuid, uuid, jsonb, text[], int)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP FUNCTION keep_batches(jsonb, text[])');
    await new KeepSince1764500000000().create(runner);
  }
}
