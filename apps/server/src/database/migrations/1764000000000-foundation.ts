import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Foundation1764000000000 implements MigrationInterface {
  name = 'Foundation1764000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE shop (
        id int PRIMARY KEY CHECK (id = 1),
        name text NOT NULL,
        zone text NOT NULL,
        currency text NOT NULL,
        session_secret text NOT NULL DEFAULT encode(sha256((random()::text || gen_random_uuid()::text || gen_random_uuid()::text)::bytea), 'hex')
      );
      INSERT INTO shop (id, name, zone, currency) VALUES (1, 'New shop', 'UTC', 'EUR');

      CREATE TABLE person (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        name text NOT NULL,
        login text NOT NULL UNIQUE,
        role text NOT NULL CHECK (role IN ('mechanic', 'foreman', 'counter', 'apprentice')),
        password_hash text NOT NULL
      );

      CREATE TABLE customer (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        name text NOT NULL,
        phone text
      );
      CREATE TABLE machine (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        customer_id uuid NOT NULL REFERENCES customer,
        name text NOT NULL,
        serial text NOT NULL
      );
      CREATE INDEX machine_customer ON machine (customer_id);
      CREATE TABLE unit (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        machine_id uuid NOT NULL REFERENCES machine,
        name text NOT NULL,
        serial text NOT NULL
      );
      CREATE INDEX unit_machine ON unit (machine_id);

      CREATE TABLE sheet_revision (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        key text NOT NULL,
        revision int NOT NULL,
        status text NOT NULL CHECK (status IN ('draft', 'approved', 'superseded', 'withdrawn')),
        file jsonb NOT NULL,
        hash text NOT NULL,
        approved_by uuid REFERENCES person,
        approved_at timestamptz,
        UNIQUE (key, revision)
      );
      CREATE UNIQUE INDEX sheet_one_approved ON sheet_revision (key) WHERE status = 'approved';
      CREATE UNIQUE INDEX sheet_one_draft ON sheet_revision (key) WHERE status = 'draft';

      CREATE TABLE tool (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        tag text NOT NULL UNIQUE,
        name text NOT NULL,
        kind text NOT NULL,
        quantity text NOT NULL,
        unit text NOT NULL,
        low double precision NOT NULL,
        high double precision NOT NULL,
        resolution double precision NOT NULL,
        u double precision NOT NULL,
        s double precision NOT NULL,
        length double precision,
        calibration_due date
      );

      CREATE SEQUENCE job_number START 401;
      CREATE TABLE job (
        id uuid PRIMARY KEY,
        number int NOT NULL UNIQUE DEFAULT nextval('job_number'),
        unit_id uuid NOT NULL REFERENCES unit,
        sheet_revision_id uuid NOT NULL REFERENCES sheet_revision,
        stage text NOT NULL DEFAULT 'book-in',
        complaint text NOT NULL,
        promise timestamptz NOT NULL,
        estimate_minor int NOT NULL,
        hold jsonb,
        version int NOT NULL DEFAULT 1,
        booked_at timestamptz NOT NULL DEFAULT now(),
        closed_at timestamptz,
        last_seq int NOT NULL DEFAULT 0,
        last_hash text NOT NULL DEFAULT ''
      );
      CREATE INDEX job_open ON job (promise) WHERE closed_at IS NULL;

      CREATE TABLE entry (
        id uuid PRIMARY KEY,
        job_id uuid NOT NULL REFERENCES job,
        seq int NOT NULL,
        kind text NOT NULL,
        payload jsonb NOT NULL,
        working jsonb,
        step text,
        tool_id uuid REFERENCES tool,
        strikes uuid UNIQUE REFERENCES entry,
        person_id uuid NOT NULL REFERENCES person,
        taken_at timestamptz NOT NULL,
        kept_at timestamptz NOT NULL DEFAULT now(),
        content_hash text NOT NULL,
        prev_hash text NOT NULL,
        hash text NOT NULL,
        UNIQUE (job_id, seq)
      );

      CREATE FUNCTION entry_is_kept() RETURNS trigger LANGUAGE plpgsql AS $$
      BEGIN
        RAISE EXCEPTION 'entries are never changed or removed; strike them' USING ERRCODE = 'JB001';
      END $$;
      CREATE TRIGGER entry_no_change BEFORE UPDATE OR DELETE ON entry FOR EACH ROW EXECUTE FUNCTION entry_is_kept();
      CREATE TRIGGER entry_no_truncate BEFORE TRUNCATE ON entry FOR EACH STATEMENT EXECUTE FUNCTION entry_is_kept();

      CREATE TABLE session (
        sid varchar NOT NULL PRIMARY KEY,
        sess json NOT NULL,
        expire timestamp(6) NOT NULL
      );
      CREATE INDEX session_expire ON session (expire);

      CREATE TABLE rate_limit (
        key varchar(255) PRIMARY KEY,
        points integer NOT NULL DEFAULT 0,
        expire bigint
      );
    `);
    await runner.query(KEEP_ENTRIES);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP FUNCTION keep_entries(uuid, uuid, jsonb);
      DROP TABLE rate_limit, session, entry, job, tool, sheet_revision, unit, machine, customer, person, shop;
      DROP FUNCTION entry_is_kept();
      DROP SEQUENCE job_number;
    `);
  }
}

/**
 * Keeps a batch of entries of one job: all or none, each id once, chained to the one before.
 * The lock on the job's row puts batches of one job in a line; other jobs are not held up.
 */
const KEEP_ENTRIES = `
  CREATE FUNCTION keep_entries(the_job uuid, the_person uuid, batch jsonb) RETURNS SETOF entry LANGUAGE plpgsql AS $$
  DECLARE
    head job%ROWTYPE;
    given jsonb;
    kept entry%ROWTYPE;
    fresh int := 0;
  BEGIN
    SELECT * INTO head FROM job WHERE id = the_job FOR UPDATE;
    IF NOT FOUND THEN
      RAISE EXCEPTION 'no such job' USING ERRCODE = 'JB404';
    END IF;
    FOR given IN SELECT * FROM jsonb_array_elements(batch) LOOP
      SELECT * INTO kept FROM entry WHERE id = (given->>'id')::uuid;
      IF FOUND THEN
        IF kept.content_hash <> given->>'contentHash' THEN
          RAISE EXCEPTION 'entry % was kept before with other content', given->>'id' USING ERRCODE = 'JB409';
        END IF;
        RETURN NEXT kept;
        CONTINUE;
      END IF;
      IF head.closed_at IS NOT NULL THEN
        RAISE EXCEPTION 'the job is handed over' USING ERRCODE = 'JB410';
      END IF;
      head.last_seq := head.last_seq + 1;
      fresh := fresh + 1;
      INSERT INTO entry (id, job_id, seq, kind, payload, working, step, tool_id, strikes, person_id, taken_at, content_hash, prev_hash, hash)
      VALUES (
        (given->>'id')::uuid, the_job, head.last_seq, given->>'kind', given->'payload', nullif(given->'working', 'null'::jsonb),
        given->>'step', (given->>'toolId')::uuid, (given->>'strikes')::uuid, the_person, (given->>'takenAt')::timestamptz,
        given->>'contentHash', head.last_hash,
        encode(sha256(convert_to(head.last_hash || ':' || head.last_seq || ':' || (given->>'contentHash'), 'UTF8')), 'hex')
      ) RETURNING * INTO kept;
      head.last_hash := kept.hash;
      IF kept.kind = 'stage' THEN head.stage := kept.payload->>'stage'; END IF;
      IF kept.kind = 'handed-over' THEN head.closed_at := now(); END IF;
      RETURN NEXT kept;
    END LOOP;
    IF fresh > 0 THEN
      UPDATE job SET last_seq = head.last_seq, last_hash = head.last_hash, stage = head.stage, closed_at = head.closed_at WHERE id = the_job;
    END IF;
  END $$;
`;
