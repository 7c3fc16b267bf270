/** Work on sheets: what the sheet's own pages and the server need beyond a job's. */
export * from './cells.js';
export * from './columns.js';
export * from './csv.js';
export * from './differences.js';
export * from './identify.js';
export * from './in-order.js';
export * from './merge.js';
export * from './nested.js';
export * from './new-line.js';
export * from './read.js';
export * from './ref-of.js';
export * from './review.js';
export * from './sound.js';
export * from './template.js';
export * from './yaml.js';
