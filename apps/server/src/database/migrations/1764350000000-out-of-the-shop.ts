import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What leaves the shop is written down in the transaction that decides it, and goes out afterwards, until it is
 * answered. Lines of the stores, tools and the shop itself have a version. What comes in for a job is kept for it by
 * the same movement, and a job may take what is kept for it as long as the shelf has it. Who may take over a tablet by
 * PIN is known by tablet; what somebody has to know stands on their Today; a count may wait for a signature.
 */
export class OutOfTheShop1764350000000 implements MigrationInterface {
  name = 'OutOfTheShop1764350000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE outbox (
        kind text NOT NULL,
        reference uuid NOT NULL,
        made_at timestamptz NOT NULL DEFAULT now(),
        tries int NOT NULL DEFAULT 0,
        next_at timestamptz NOT NULL DEFAULT now(),
        went_at timestamptz,
        PRIMARY KEY (kind, reference)
      );
      CREATE INDEX outbox_due ON outbox (next_at) WHERE went_at IS NULL;
      INSERT INTO outbox (kind, reference) SELECT 'order', id FROM part_order WHERE state = 'sent';
      ALTER TABLE stock_item ADD COLUMN version int NOT NULL DEFAULT 1;
      ALTER TABLE tool ADD COLUMN version int NOT NULL DEFAULT 1;
      ALTER TABLE shop ADD COLUMN version int NOT NULL DEFAULT 1, ADD COLUMN pin_digits int NOT NULL DEFAULT 4 CHECK (pin_digits IN (4, 6));
      ALTER TABLE person ADD COLUMN pin_digits int NOT NULL DEFAULT 4;

      CREATE TABLE tablet_person (
        tablet_id uuid NOT NULL REFERENCES tablet,
        person_id uuid NOT NULL REFERENCES person,
        since timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (tablet_id, person_id)
      );
      INSERT INTO tablet_person (tablet_id, person_id) SELECT id, added_by FROM tablet;
      CREATE TABLE notice (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        topic text NOT NULL UNIQUE,
        words text NOT NULL,
        person_id uuid REFERENCES person,
        at timestamptz NOT NULL DEFAULT now(),
        seen_by uuid[] NOT NULL DEFAULT '{}'
      );
      CREATE TABLE stock_count (
        id uuid PRIMARY KEY,
        item_id uuid NOT NULL REFERENCES stock_item,
        quantity numeric(12, 3) NOT NULL,
        words text,
        person_id uuid NOT NULL REFERENCES person,
        taken_at timestamptz NOT NULL,
        kept_at timestamptz NOT NULL DEFAULT now(),
        settled_by uuid REFERENCES person,
        is_taken boolean
      );
      CREATE INDEX stock_count_open ON stock_count (item_id) WHERE settled_by IS NULL;
      CREATE TABLE instrument_heard (
        instrument_id uuid NOT NULL REFERENCES instrument,
        mark text NOT NULL,
        heard_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (instrument_id, mark)
      );
      CREATE INDEX instrument_heard_at ON instrument_heard (instrument_id, heard_at);
      ALTER TABLE instrument DROP COLUMN last_n;
      ALTER TABLE file ADD COLUMN sent_size int;
    `);
    for (const [before, after] of MOVES) await runner.query(written(before, after));
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const [before, after] of MOVES.toReversed()) await runner.query(written(after, before));
    await runner.query(`
      ALTER TABLE file DROP COLUMN sent_size;
      ALTER TABLE instrument ADD COLUMN last_n bigint NOT NULL DEFAULT 0;
      DROP TABLE instrument_heard, stock_count, notice, tablet_person;
      ALTER TABLE person DROP COLUMN pin_digits;
      ALTER TABLE shop DROP COLUMN version, DROP COLUMN pin_digits;
      ALTER TABLE tool DROP COLUMN version;
      ALTER TABLE stock_item DROP COLUMN version;
      DROP TABLE outbox;
    `);
  }
}

/** What changes in `move_stock`. */
const MOVES: readonly (readonly [string, string])[] = [
  [
    `WHEN 'receive', 'return' THEN
        item.on_hand := item.on_hand + pieces;`,
    `WHEN 'receive', 'return' THEN
        item.on_hand := item.on_hand + pieces;
        IF kind = 'receive' AND job IS NOT NULL THEN
          item.reserved := item.reserved + pieces;
          mine := mine + pieces;
        END IF;`,
  ],
  [`kind IN ('reserve', 'release', 'issue')`, `kind IN ('receive', 'reserve', 'release', 'issue')`],
  [
    `IF item.on_hand < pieces OR item.on_hand - item.reserved + mine < pieces THEN
          RAISE EXCEPTION '%', trim_scale(greatest(0, item.on_hand - item.reserved + mine)) USING ERRCODE = 'JB420';`,
    `IF least(item.on_hand, greatest(mine, item.on_hand - item.reserved + mine)) < pieces THEN
          RAISE EXCEPTION '%', trim_scale(greatest(0, least(item.on_hand, greatest(mine, item.on_hand - item.reserved + mine)))) USING ERRCODE = 'JB420';`,
  ],
];

/** The function with one passage changed; refused when the passage is not there. */
function written(before: string, after: string): string {
  return `DO $do$ DECLARE was text := pg_get_functiondef('move_stock'::regproc); BEGIN
    IF strpos(was, $x$${before}$x$) = 0 THEN RAISE EXCEPTION 'move_stock is not as it was left'; END IF;
    EXECUTE replace(was, $x$${before}$x$, $x$${after}$x$);
  END $do$`;
}
