import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Shelves with every movement on them, orders, the stand-in that plays the suppliers, quotes and their messages, checks and studies of tools. */
export class Stores1764150000000 implements MigrationInterface {
  name = 'Stores1764150000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE EXTENSION IF NOT EXISTS pg_trgm;

      CREATE TABLE stock_item (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        number text NOT NULL UNIQUE,
        name text NOT NULL,
        kind text NOT NULL,
        unit text NOT NULL,
        size text,
        designation text,
        location text NOT NULL DEFAULT '',
        minimum numeric(12, 3) NOT NULL DEFAULT 0,
        price_minor int NOT NULL DEFAULT 0,
        on_hand numeric(12, 3) NOT NULL DEFAULT 0 CHECK (on_hand >= 0),
        reserved numeric(12, 3) NOT NULL DEFAULT 0 CHECK (reserved >= 0),
        words text GENERATED ALWAYS AS (lower(number || ' ' || name || ' ' || coalesce(size, '') || ' ' || coalesce(designation, '') || ' ' || location)) STORED
      );
      CREATE INDEX stock_item_words ON stock_item USING gin (words gin_trgm_ops);
      CREATE INDEX stock_item_designation ON stock_item (designation) WHERE designation IS NOT NULL;

      CREATE TABLE stock_reservation (
        item_id uuid NOT NULL REFERENCES stock_item,
        job_id uuid NOT NULL REFERENCES job,
        quantity numeric(12, 3) NOT NULL CHECK (quantity > 0),
        PRIMARY KEY (item_id, job_id)
      );
      CREATE INDEX stock_reservation_job ON stock_reservation (job_id);

      CREATE TABLE stock_movement (
        id uuid PRIMARY KEY,
        seq bigint GENERATED ALWAYS AS IDENTITY,
        item_id uuid NOT NULL REFERENCES stock_item,
        kind text NOT NULL,
        quantity numeric(12, 3) NOT NULL,
        on_hand_after numeric(12, 3) NOT NULL,
        job_id uuid REFERENCES job,
        batch text,
        expires date,
        words text,
        person_id uuid NOT NULL REFERENCES person,
        taken_at timestamptz NOT NULL,
        kept_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE INDEX stock_movement_item ON stock_movement (item_id, seq DESC);
      CREATE INDEX stock_movement_batch ON stock_movement (item_id, batch) WHERE batch IS NOT NULL;
      CREATE INDEX stock_movement_job ON stock_movement (job_id) WHERE job_id IS NOT NULL;
      CREATE TRIGGER stock_movement_no_change BEFORE UPDATE OR DELETE ON stock_movement FOR EACH ROW EXECUTE FUNCTION entry_is_kept();
      CREATE TRIGGER stock_movement_no_truncate BEFORE TRUNCATE ON stock_movement FOR EACH STATEMENT EXECUTE FUNCTION entry_is_kept();

      CREATE TABLE part_order (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        number int GENERATED ALWAYS AS IDENTITY,
        supplier text NOT NULL,
        state text NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'sent', 'differs', 'confirmed', 'delivered')),
        sent_at timestamptz,
        sent_by uuid REFERENCES person
      );
      CREATE UNIQUE INDEX part_order_one_open ON part_order (supplier) WHERE state = 'open';
      CREATE TABLE part_order_line (
        id uuid PRIMARY KEY,
        order_id uuid NOT NULL REFERENCES part_order,
        number text NOT NULL,
        name text NOT NULL,
        quantity int NOT NULL CHECK (quantity > 0),
        price_minor int NOT NULL,
        job_id uuid REFERENCES job,
        confirmed int,
        due date,
        received int NOT NULL DEFAULT 0,
        returned int NOT NULL DEFAULT 0
      );
      CREATE INDEX part_order_line_order ON part_order_line (order_id);
      CREATE INDEX part_order_line_job ON part_order_line (job_id) WHERE job_id IS NOT NULL;
      CREATE TABLE goods_in (
        id uuid PRIMARY KEY,
        order_id uuid NOT NULL REFERENCES part_order,
        lines jsonb NOT NULL,
        person_id uuid NOT NULL REFERENCES person,
        kept_at timestamptz NOT NULL DEFAULT now()
      );

      CREATE TABLE supplier (name text PRIMARY KEY, fault text NOT NULL DEFAULT 'none');
      CREATE TABLE supplier_item (
        supplier text NOT NULL REFERENCES supplier,
        number text NOT NULL,
        name text NOT NULL,
        price_minor int NOT NULL,
        breaks jsonb NOT NULL DEFAULT '[]',
        lead_days int NOT NULL,
        lead_spread int NOT NULL,
        available boolean NOT NULL DEFAULT true,
        superseded_by text,
        PRIMARY KEY (supplier, number)
      );
      CREATE INDEX supplier_item_number ON supplier_item (number);
      CREATE TABLE supplier_order (
        reference uuid PRIMARY KEY,
        supplier text NOT NULL REFERENCES supplier,
        answer jsonb NOT NULL,
        notes jsonb NOT NULL DEFAULT '[]',
        taken_at timestamptz NOT NULL DEFAULT now()
      );

      ALTER TABLE tool ADD COLUMN check_every_days int, ADD COLUMN lent_to uuid REFERENCES person, ADD COLUMN lent_at timestamptz;
      CREATE TABLE tool_check (
        id uuid PRIMARY KEY,
        tool_id uuid NOT NULL REFERENCES tool,
        verdict text NOT NULL CHECK (verdict IN ('good', 'out')),
        points jsonb NOT NULL,
        against text NOT NULL,
        certificate text,
        due date,
        person_id uuid NOT NULL REFERENCES person,
        kept_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE INDEX tool_check_tool ON tool_check (tool_id, kept_at DESC);
      CREATE TABLE tool_study (
        id uuid PRIMARY KEY,
        tool_id uuid NOT NULL REFERENCES tool,
        readings jsonb NOT NULL,
        result jsonb NOT NULL,
        person_id uuid NOT NULL REFERENCES person,
        kept_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE INDEX entry_tool ON entry (tool_id, taken_at DESC) WHERE tool_id IS NOT NULL;

      CREATE TABLE quote (
        id uuid PRIMARY KEY,
        number int GENERATED ALWAYS AS IDENTITY,
        job_id uuid NOT NULL REFERENCES job,
        state text NOT NULL DEFAULT 'sent' CHECK (state IN ('sent', 'yes', 'no', 'ask', 'replaced')),
        body jsonb NOT NULL,
        token_hash text NOT NULL UNIQUE,
        answer jsonb,
        sent_by uuid NOT NULL REFERENCES person,
        sent_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE INDEX quote_job ON quote (job_id);
      CREATE TABLE message (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        to_whom text NOT NULL,
        subject text NOT NULL,
        body text NOT NULL,
        link text,
        sent_at timestamptz NOT NULL DEFAULT now()
      );
    `);
    await runner.query(MOVE_STOCK);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP FUNCTION move_stock(jsonb, uuid, uuid);
      DROP INDEX entry_tool;
      ALTER TABLE tool DROP COLUMN check_every_days, DROP COLUMN lent_to, DROP COLUMN lent_at;
      DROP TABLE tool_study, tool_check, message, quote, supplier_order, supplier_item, supplier, goods_in, part_order_line, part_order, stock_movement, stock_reservation, stock_item;
    `);
  }
}

/**
 * One movement of a stock line, once. The lock on the line puts two people who want the last one
 * behind each other: the second is told that nothing is free. Errors: JB404 no such line, JB420 not
 * enough (the message says how much is free), JB421 more released than was reserved, JB422 the
 * batch has not so much or is past its day.
 */
const MOVE_STOCK = `
  CREATE FUNCTION move_stock(given jsonb, the_item uuid, the_person uuid) RETURNS stock_movement LANGUAGE plpgsql AS $$
  DECLARE
    item stock_item%ROWTYPE;
    moved stock_movement%ROWTYPE;
    kind text := given->>'kind';
    pieces numeric := (given->>'quantity')::numeric;
    job uuid := (given->>'jobId')::uuid;
    mine numeric := 0;
    in_batch numeric;
    best_before date;
  BEGIN
    SELECT * INTO item FROM stock_item WHERE id = the_item FOR UPDATE;
    IF NOT FOUND THEN RAISE EXCEPTION 'no such stock line' USING ERRCODE = 'JB404'; END IF;
    SELECT * INTO moved FROM stock_movement WHERE id = (given->>'id')::uuid;
    IF FOUND THEN
      IF moved.item_id <> the_item OR moved.kind <> kind OR moved.quantity <> pieces OR moved.job_id IS DISTINCT FROM job THEN
        RAISE EXCEPTION 'this movement was kept before with other content' USING ERRCODE = 'JB409';
      END IF;
      RETURN moved;
    END IF;
    IF job IS NOT NULL THEN
      SELECT quantity INTO mine FROM stock_reservation r WHERE r.item_id = the_item AND r.job_id = job;
      mine := coalesce(mine, 0);
    END IF;
    IF kind = 'issue' AND given->>'batch' IS NOT NULL THEN
      SELECT sum(CASE WHEN m.kind IN ('receive', 'return') THEN m.quantity WHEN m.kind = 'issue' THEN -m.quantity ELSE 0 END), min(m.expires)
        INTO in_batch, best_before FROM stock_movement m WHERE m.item_id = the_item AND m.batch = given->>'batch';
      IF coalesce(in_batch, 0) < pieces THEN
        RAISE EXCEPTION 'of batch % there are %', given->>'batch', coalesce(in_batch, 0) USING ERRCODE = 'JB422';
      END IF;
      IF best_before < (given->>'takenAt')::timestamptz::date THEN
        RAISE EXCEPTION 'batch % is past its day, %', given->>'batch', best_before USING ERRCODE = 'JB422';
      END IF;
    END IF;
    CASE kind
      WHEN 'receive', 'return' THEN
        item.on_hand := item.on_hand + pieces;
      WHEN 'reserve' THEN
        IF item.on_hand - item.reserved < pieces THEN
          RAISE EXCEPTION '%', trim_scale(greatest(0, item.on_hand - item.reserved)) USING ERRCODE = 'JB420';
        END IF;
        item.reserved := item.reserved + pieces;
        mine := mine + pieces;
      WHEN 'release' THEN
        IF mine < pieces THEN RAISE EXCEPTION '%', trim_scale(mine) USING ERRCODE = 'JB421'; END IF;
        item.reserved := item.reserved - pieces;
        mine := mine - pieces;
      WHEN 'issue' THEN
        IF item.on_hand < pieces OR item.on_hand - item.reserved + mine < pieces THEN
          RAISE EXCEPTION '%', trim_scale(greatest(0, item.on_hand - item.reserved + mine)) USING ERRCODE = 'JB420';
        END IF;
        item.on_hand := item.on_hand - pieces;
        item.reserved := item.reserved - least(mine, pieces);
        mine := mine - least(mine, pieces);
      WHEN 'count' THEN
        item.on_hand := pieces;
    END CASE;
    UPDATE stock_item SET on_hand = item.on_hand, reserved = item.reserved WHERE id = the_item;
    IF job IS NOT NULL AND kind IN ('reserve', 'release', 'issue') THEN
      IF mine > 0 THEN
        INSERT INTO stock_reservation VALUES (the_item, job, mine)
          ON CONFLICT (item_id, job_id) DO UPDATE SET quantity = excluded.quantity;
      ELSE
        DELETE FROM stock_reservation r WHERE r.item_id = the_item AND r.job_id = job;
      END IF;
    END IF;
    INSERT INTO stock_movement (id, item_id, kind, quantity, on_hand_after, job_id, batch, expires, words, person_id, taken_at)
    VALUES ((given->>'id')::uuid, the_item, kind, pieces, item.on_hand, job, given->>'batch', (given->>'expires')::date, given->>'words', the_person, (given->>'takenAt')::timestamptz)
    RETURNING * INTO moved;
    RETURN moved;
  END $$;
`;
