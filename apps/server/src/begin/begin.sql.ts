import type { Statement } from '../database/data-source.js';

/** By hand: what there is of each thing, in one round trip. */
export const BEGUN: Statement = {
  name: 'begun',
  text: `SELECT s.version > 1 AS "isPriced",
      (SELECT count(*)::int FROM person WHERE left_at IS NULL) AS people,
      (SELECT count(*)::int FROM person WHERE left_at IS NULL AND pin_hash IS NOT NULL) AS pins,
      (SELECT count(*)::int FROM bench) AS benches,
      (SELECT count(*)::int FROM tool WHERE retired IS NULL) AS tools,
      (SELECT count(*)::int FROM stock_item) AS stock,
      (SELECT count(*)::int FROM supplier WHERE NOT is_gone) AS suppliers,
      (SELECT count(*)::int FROM sheet_revision WHERE status = 'approved') AS sheets,
      (SELECT count(*)::int FROM sheet_revision WHERE status = 'draft') AS drafts,
      (SELECT count(*)::int FROM tablet) AS tablets,
      (SELECT count(*)::int FROM job) AS jobs,
      (SELECT count(*)::int FROM job WHERE closed_at IS NOT NULL) AS "handedOver",
      EXISTS (SELECT 1 FROM shop_care WHERE what = 'backup' AND is_good) AS "isBackedUp",
      EXISTS (SELECT 1 FROM shop_care WHERE what = 'rehearsal' AND is_good) AS "isRehearsed",
      EXISTS (SELECT 1 FROM demo_sight) AS "isDemo"
    FROM shop s WHERE s.id = 1`,
};
