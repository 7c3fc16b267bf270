import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Links of quotes are kept as their hash alone; one quote of a job is good at a time; a batch is past its day by the shop's calendar. */
export class CustomersWord1764250000000 implements MigrationInterface {
  name = 'CustomersWord1764250000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE message DROP COLUMN link;
      UPDATE quote q SET state = 'replaced'
        WHERE state <> 'replaced' AND EXISTS (SELECT 1 FROM quote newer WHERE newer.job_id = q.job_id AND newer.number > q.number);
      CREATE UNIQUE INDEX quote_one_live ON quote (job_id) WHERE state <> 'replaced';
    `);
    await runner.query(moveStock(`((given->>'takenAt')::timestamptz AT TIME ZONE (SELECT zone FROM shop))::date`));
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX quote_one_live; ALTER TABLE message ADD COLUMN link text');
    await runner.query(moveStock(`(given->>'takenAt')::timestamptz::date`));
  }
}

/** `move_stock` as it was, but for the day on which something is taken. */
const moveStock = (takenOn: string): string => `
  CREATE OR REPLACE FUNCTION move_stock(given jsonb, the_item uuid, the_person uuid) RETURNS stock_movement LANGUAGE plpgsql AS $$
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
      IF best_before < ${takenOn} THEN
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
