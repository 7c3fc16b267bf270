import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A code of a telephone beside the password, where a person wants it. */
export class SecondFactor1765050000000 implements MigrationInterface {
  name = 'SecondFactor1765050000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE person ADD COLUMN second_secret text, ADD COLUMN second_step bigint');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE person DROP COLUMN second_secret, DROP COLUMN second_step');
  }
}
