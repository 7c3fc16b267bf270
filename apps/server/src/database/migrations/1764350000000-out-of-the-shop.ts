import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What leaves the shop is written down in the transaction that decides it, and goes out afterwards, until it is
 * answered. Lines of the stores, tools and the shop itself have a version. What comes in for a job is kept for it by
 * the same movement, and a job may take what is kept for it as long as the shelf has it.
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
      ALTER TABLE shop ADD COLUMN version int NOT NULL DEFAULT 1;
    `);
    for (const [before, after] of MOVES) await runner.query(written(before, after));
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const [before, after] of MOVES.toReversed()) await runner.query(written(after, before));
    await runner.query(`
      ALTER TABLE shop DROP COLUMN version;
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
