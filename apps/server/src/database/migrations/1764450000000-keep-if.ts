import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Keeps entries that were checked by some kinds of entry of their job alone, if none of those came since: a pull comes
 * every few seconds, and is one round trip. Whoever asks with something older is told, and looks again.
 */
export class KeepIf1764450000000 implements MigrationInterface {
  name = 'KeepIf1764450000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE FUNCTION keep_entries_if(the_job uuid, the_person uuid, batch jsonb, kinds text[], last_known int) RETURNS SETOF entry LANGUAGE plpgsql AS $$
      BEGIN
        PERFORM 1 FROM job WHERE id = the_job FOR NO KEY UPDATE;
        IF coalesce((SELECT max(seq) FROM entry WHERE job_id = the_job AND kind = ANY (kinds)), 0) <> last_known THEN
          RAISE EXCEPTION 'something came since' USING ERRCODE = 'JB412';
        END IF;
        RETURN QUERY SELECT * FROM keep_entries(the_job, the_person, batch);
      END $$
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP FUNCTION keep_entries_if(uuid, uuid, jsonb, text[], int)');
  }
}
