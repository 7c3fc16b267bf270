import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Whoever keeps by what is remembered of a job says up to which entry it looked at the job: only what came after that is
 * looked through, and not the whole job with every pull.
 */
export class KeepSince1764500000000 implements MigrationInterface {
  name = 'KeepSince1764500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('DROP FUNCTION keep_entries_if(uuid, uuid, jsonb, text[], int)');
    await this.create(runner);
  }

  async create(runner: QueryRunner): Promise<void> {
    await runner.query(keepIf('up_to', 'EXISTS (SELECT 1 FROM entry WHERE job_id = the_job AND seq > up_to AND kind = ANY (kinds))'));
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP FUNCTION keep_entries_if(uuid, uuid, jsonb, text[], int)');
    await runner.query(
      keepIf('last_known', 'coalesce((SELECT max(seq) FROM entry WHERE job_id = the_job AND kind = ANY (kinds)), 0) <> last_known'),
    );
  }
}

const keepIf = (mark: string, cameSince: string): string => `
  CREATE FUNCTION keep_entries_if(the_job uuid, the_person uuid, batch jsonb, kinds text[], ${mark} int) RETURNS SETOF entry LANGUAGE plpgsql AS $$
  BEGIN
    PERFORM 1 FROM job WHERE id = the_job FOR NO KEY UPDATE;
    IF ${cameSince} THEN
      RAISE EXCEPTION 'something came since' USING ERRCODE = 'JB412';
    END IF;
    RETURN QUERY SELECT * FROM keep_entries(the_job, the_person, batch);
  END $$
`;
