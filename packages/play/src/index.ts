/** Jobs worked through without anybody: by the demo, by the checker of a sheet, by whoever rehearses. */
export * from './mechanic.js';
export * from './check.js';
export * from './play.js';
export * from './routes.js';
export * from './tools.js';
export * from './rehearsal.js';
export * from './sheet-from-strip.js';
