import type { Role } from '@jubb/contract';

const EVERYONE: readonly Role[] = ['mechanic', 'foreman', 'counter', 'apprentice'];
const BENCH: readonly Role[] = ['mechanic', 'foreman', 'apprentice'];
/** Who may work on sheets; only a foreman approves them. */
const WRITERS: readonly Role[] = ['mechanic', 'foreman'];
const TRUSTED: readonly Role[] = ['mechanic', 'foreman', 'counter'];

/**
 * Who may call what: the one table. A route that is not in it is refused, and a test walks every
 * role over every line.
 */
export const ACCESS: Readonly<Record<string, readonly Role[] | 'anyone'>> = {
  'GET /api/v1/health': 'anyone',
  'POST /api/v1/session': 'anyone',
  'POST /api/v1/first-run': 'anyone',
  'GET /api/v1/session': EVERYONE,
  'DELETE /api/v1/session': EVERYONE,
  'GET /api/v1/stream': EVERYONE,
  'GET /api/v1/workings': EVERYONE,
  'GET /api/v1/workings/:id': EVERYONE,
  'POST /api/v1/workings/:id/run': EVERYONE,
  'GET /api/v1/sheets': EVERYONE,
  'GET /api/v1/sheets/schema': EVERYONE,
  'GET /api/v1/sheets/find': EVERYONE,
  'GET /api/v1/sheets/identities': EVERYONE,
  'GET /api/v1/sheets/:id': EVERYONE,
  'GET /api/v1/sheets/:id/revisions': EVERYONE,
  'GET /api/v1/sheets/:id/differences/:against': EVERYONE,
  'GET /api/v1/sheets/:id/file.json': EVERYONE,
  'GET /api/v1/sheets/:id/file.yaml': EVERYONE,
  'GET /api/v1/sheets/:id/csv/:list': EVERYONE,
  'GET /api/v1/sheets/:id/proposals': EVERYONE,
  'GET /api/v1/papers/:id': EVERYONE,
  'POST /api/v1/papers': WRITERS,
  'POST /api/v1/sheets': TRUSTED,
  'POST /api/v1/sheets/:id/draft': WRITERS,
  'PUT /api/v1/sheets/:id': WRITERS,
  'DELETE /api/v1/sheets/:id': ['foreman'],
  'POST /api/v1/sheets/:id/withdraw': ['foreman'],
  'POST /api/v1/sheets/proposals/:entryId/settle': WRITERS,
  'POST /api/v1/sheets/import': TRUSTED,
  'POST /api/v1/sheets/:id/approve': ['foreman'],
  'GET /api/v1/files/:sha': EVERYONE,
  'GET /api/v1/files/:sha/state': EVERYONE,
  'PUT /api/v1/files/:sha': EVERYONE,
  'GET /api/v1/tablet': 'anyone',
  'PATCH /api/v1/tablet': EVERYONE,
  'POST /api/v1/session/swap': 'anyone',
  'PUT /api/v1/session/pin': EVERYONE,
  'GET /api/v1/instruments': EVERYONE,
  'PUT /api/v1/instruments/:id/tablet': BENCH,
  'POST /api/v1/instruments/:id/key': ['foreman'],
  'POST /api/v1/instruments/:id/lines': 'anyone',
  'GET /api/v1/tools': EVERYONE,
  'GET /api/v1/customers': EVERYONE,
  'GET /api/v1/customers/:id': EVERYONE,
  'GET /api/v1/units/:id/history': EVERYONE,
  'GET /api/v1/jobs': EVERYONE,
  'POST /api/v1/jobs': TRUSTED,
  'GET /api/v1/jobs/:id': EVERYONE,
  'PATCH /api/v1/jobs/:id': TRUSTED,
  'GET /api/v1/jobs/:id/chain': EVERYONE,
  'POST /api/v1/jobs/:id/entries': EVERYONE,
  'GET /api/v1/jobs/:id/report.pdf': EVERYONE,
  'GET /api/v1/jobs/:id/label.svg': EVERYONE,
  'GET /api/v1/today': EVERYONE,
};
