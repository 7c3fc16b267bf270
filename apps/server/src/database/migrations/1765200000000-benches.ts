import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Benches, and the machines of the shop that steps need: who may use them, when, and which jobs stand there. */
export class Benches1765200000000 implements MigrationInterface {
  name = 'Benches1765200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE bench (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        name text NOT NULL UNIQUE,
        kind text NOT NULL CHECK (kind IN ('bench', 'press', 'lift', 'oven', 'test stand')),
        hours jsonb,
        out_why text,
        version int NOT NULL DEFAULT 1
      );
      CREATE TABLE bench_person (
        bench_id uuid NOT NULL REFERENCES bench ON DELETE CASCADE,
        person_id uuid NOT NULL REFERENCES person,
        PRIMARY KEY (bench_id, person_id)
      );
      CREATE TABLE job_bench (
        job_id uuid PRIMARY KEY REFERENCES job,
        bench_id uuid NOT NULL REFERENCES bench ON DELETE CASCADE,
        since timestamptz NOT NULL DEFAULT now()
      );
      CREATE INDEX job_bench_bench ON job_bench (bench_id)
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE job_bench; DROP TABLE bench_person; DROP TABLE bench');
  }
}
