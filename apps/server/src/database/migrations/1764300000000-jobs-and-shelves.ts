import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Entries may move the shelves while their job is locked. Whoever moves a shelf for a job looks at that job's key only:
 * a lock that leaves the key alone keeps the two from waiting for each other.
 */
export class JobsAndShelves1764300000000 implements MigrationInterface {
  name = 'JobsAndShelves1764300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(lockedBy('FOR UPDATE', 'FOR NO KEY UPDATE'));
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(lockedBy('FOR NO KEY UPDATE', 'FOR UPDATE'));
  }
}

/** `keep_entries` as it was, but for the lock on its job. */
const lockedBy = (before: string, after: string): string =>
  `DO $do$ BEGIN EXECUTE replace(pg_get_functiondef('keep_entries'::regproc), '${before}', '${after}'); END $do$`;
