import type { Statement } from '../database/data-source.js';

/** Tells events to whoever listens, all in one round trip. */
export const TELL: Statement = { name: 'tell', text: `SELECT pg_notify('jubb', event) FROM unnest($1::text[]) AS event` };
