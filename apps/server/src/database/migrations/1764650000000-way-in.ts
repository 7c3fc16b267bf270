import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A machine has a short sheet of its own: what is in the way of its units. */
export class WayIn1764650000000 implements MigrationInterface {
  name = 'WayIn1764650000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE way_in (
        machine_id uuid PRIMARY KEY REFERENCES machine,
        lines jsonb NOT NULL,
        version int NOT NULL,
        edited_by uuid NOT NULL REFERENCES person,
        edited_at timestamptz NOT NULL
      );
      CREATE INDEX machine_name ON machine (name)
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX machine_name; DROP TABLE way_in');
  }
}
