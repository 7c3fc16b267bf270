/** Work on sheets: what the sheet's own pages and the server need beyond a job's. */
export * from '../lines/cells.js';
export * from '../lines/columns.js';
export * from '../reading/csv.js';
export * from '../reading/plain.js';
export * from '../reading/read.js';
export * from '../reading/sound.js';
export * from '../reading/yaml.js';
export * from '../model/identify.js';
export * from '../lines/nested.js';
export * from '../review/review.js';
export * from '../review/hazards.js';
export * from './differences.js';
export * from './line-check.js';
export * from '../lines/in-order.js';
export * from './merge.js';
export * from '../lines/new-line.js';
export * from './template.js';
