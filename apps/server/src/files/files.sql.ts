import type { Statement } from '../database/data-source.js';

/** By hand, because the sizes are the database's to tell: nothing of a file is read for them. */

/** What the files of the shop take, and what of that is half sent, in MB. */
export const ROOM: Statement = {
  name: 'room-for-files',
  text: `SELECT pg_total_relation_size('file')::float8 / 1e6 AS whole, (SELECT coalesce(sum(length(content)), 0) FROM file_part)::float8 / 1e6 AS parts`,
};

/** A `FileState`: how many bytes of it are here. */
export const STATE: Statement = {
  name: 'state-of-file',
  text: `SELECT coalesce((SELECT coalesce(sent_size, length(content)) FROM file WHERE sha256 = $1),
                         (SELECT sum(length(content)) FROM file_part WHERE sha256 = $1), 0)::int AS have,
                EXISTS (SELECT 1 FROM file WHERE sha256 = $1) AS whole`,
};
