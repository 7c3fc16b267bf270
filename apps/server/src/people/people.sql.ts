import type { Statement } from '../database/data-source.js';
import { LICENCES_OF_P } from '../database/licences.sql.js';

/** By hand: the tablets of each are counted beside them. */
export const PEOPLE: Statement = {
  name: 'people-list',
  text: `SELECT p.id, p.name, p.login, p.role, p.left_at AS "leftAt", p.version,
    ${LICENCES_OF_P} AS licences, p.second_secret IS NOT NULL AS "hasSecond",
    (SELECT count(*)::int FROM tablet_person t WHERE t.person_id = p.id) AS tablets
  FROM person p ORDER BY p.left_at IS NOT NULL, p.name`,
};
export const PERSON: Statement = { name: 'people-one', text: `SELECT * FROM (${PEOPLE.text}) people WHERE id = $1` };

/** By hand: the table of the session store has no entity. What was theirs is over; each is told by what it is called outside. */
export const END_SESSIONS: Statement = {
  name: 'sessions-end',
  text: "DELETE FROM session WHERE sess->'person'->>'id' = $1 RETURNING sid",
};
/** Where they are logged in they are called by their new name from then on. */
export const RENAME_IN_SESSIONS: Statement = {
  name: 'sessions-rename',
  text: `UPDATE session SET sess = jsonb_set(jsonb_set(sess::jsonb,
      '{person,name}', CASE WHEN sess->'person'->>'id' = $1 THEN to_jsonb($2::text) ELSE sess::jsonb->'person'->'name' END),
      '{people}', (SELECT coalesce(jsonb_agg(CASE WHEN one->>'id' = $1 THEN one || jsonb_build_object('name', $2::text) ELSE one END), '[]')
        FROM jsonb_array_elements(coalesce(sess::jsonb->'people', '[]')) one))::json
    WHERE sess->'person'->>'id' = $1 OR sess::jsonb->'people' @> jsonb_build_array(jsonb_build_object('id', $1::text))`,
};
/** Where they stood beside somebody else they are known no more. */
export const FORGET_BESIDE: Statement = {
  name: 'sessions-forget',
  text: `UPDATE session SET sess = jsonb_set(sess::jsonb, '{people}',
      (SELECT coalesce(jsonb_agg(one), '[]') FROM jsonb_array_elements(sess::jsonb->'people') one WHERE one->>'id' <> $1))::json
    WHERE sess::jsonb->'people' @> jsonb_build_array(jsonb_build_object('id', $1::text)) RETURNING sid`,
};
/** By hand: a find over what was changed, by its words. */
export const CHANGES: Statement = {
  name: 'shop-changes',
  text: `SELECT c.id, c.at, p.name AS person, c.what, c.subject, c.act, c.fields
    FROM shop_change c JOIN person p ON p.id = c.person_id
    WHERE ($1::timestamptz IS NULL OR c.at < $1)
      AND ($2::text = '' OR position(lower($2) IN lower(concat_ws(' ', c.what, c.subject, c.act, p.name, c.fields::text))) > 0)
    ORDER BY c.at DESC, c.id LIMIT 200`,
};
