/** The certificates of the person `p`, as JSON, those that are good longest first; null where none is kept. By hand: a list within a row. */
export const LICENCES_OF_P = `(SELECT json_agg(json_build_object('id', l.id, 'covers', l.covers, 'number', l.number, 'givenBy', l.given_by,
    'until', l.until, 'paperId', l.paper_id) ORDER BY l.until DESC NULLS FIRST, l.kept_at DESC) FROM licence l WHERE l.person_id = p.id)`;
