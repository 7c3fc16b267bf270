import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A machine has a short sheet of its own: what is in the way of its units. Tools that were made on jobs are found, and where they served. */
export class WayInAndTools1764650000000 implements MigrationInterface {
  name = 'WayInAndTools1764650000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE way_in (
        machine_id uuid PRIMARY KEY REFERENCES machine,
        lines jsonb NOT NULL,
        version int NOT NULL,
        edited_by uuid NOT NULL REFERENCES person,
        edited_at timestamptz NOT NULL
      );
      CREATE INDEX machine_name ON machine (name);
      CREATE INDEX entry_tool_made ON entry (taken_at) WHERE kind = 'tool-made';
      CREATE INDEX entry_tool_served ON entry ((payload->>'tool')) WHERE kind = 'tool-served'
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX entry_tool_served, entry_tool_made, machine_name; DROP TABLE way_in');
  }
}
