import type { Statement } from '../database/data-source.js';

/** What a session is called outside, as `sessionMark` makes it. */
const MARK = "rtrim(translate(encode(sha256(convert_to(s.sid, 'UTF8')), 'base64'), '+/', '-_'), '=')";

/**
 * By hand: the table of the session store has no entity. Sessions last twelve hours, whatever is done in them. A session of
 * before its tablet was kept with it stands at none.
 */
export const TABLETS: Statement = {
  name: 'tablets-list',
  text: `SELECT t.id, t.name, by.name AS "addedBy", t.added_at AS "addedAt",
      (SELECT coalesce(json_agg(p.name ORDER BY p.name), '[]') FROM tablet_person k JOIN person p ON p.id = k.person_id
        WHERE k.tablet_id = t.id) AS people,
      (SELECT coalesce(json_agg(tool.tag ORDER BY tool.tag), '[]') FROM instrument i JOIN tool ON tool.id = i.tool_id
        WHERE i.tablet_id = t.id) AS instruments,
      (SELECT coalesce(json_agg(json_build_object(
          'mark', ${MARK},
          'person', s.sess->'person'->>'name',
          'beside', (SELECT coalesce(json_agg(one->>'name' ORDER BY one->>'name'), '[]')
            FROM json_array_elements(s.sess->'people') one WHERE one->>'id' <> s.sess->'person'->>'id'),
          'since', s.expire::timestamptz - interval '12 hours',
          'until', s.expire::timestamptz,
          'isThis', s.sid = $1) ORDER BY s.expire DESC), '[]')
        FROM session s WHERE s.sess->>'tabletId' = t.id::text AND s.expire > localtimestamp AND s.sess->'person' IS NOT NULL
      ) AS "logIns"
    FROM tablet t JOIN person by ON by.id = t.added_by
    ORDER BY t.added_at, t.name`,
};

/** One session is over, by what it is called outside; who was in it, and where. */
export const END_LOG_IN: Statement = {
  name: 'log-in-end',
  text: `DELETE FROM session s WHERE ${MARK} = $1 RETURNING s.sid, s.sess->'person'->>'name' AS person, s.sess->>'tabletId' AS "tabletId"`,
};

/** All of a tablet's. */
export const END_LOG_INS: Statement = {
  name: 'log-ins-end',
  text: "DELETE FROM session WHERE sess->>'tabletId' = $1 RETURNING sid",
};

/** Told when the transaction is done, to every process. */
export const TELL: Statement = { name: 'tell-processes', text: "SELECT pg_notify('jubb', $1)" };
