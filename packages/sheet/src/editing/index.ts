/** Work on sheets: what the sheet's own pages and the server need beyond a job's. */
export * from './../reading/cells.js';
export * from './../reading/columns.js';
export * from './../reading/csv.js';
export * from './../reading/read.js';
export * from './../reading/sound.js';
export * from './../reading/yaml.js';
export * from './../model/identify.js';
export * from './../model/nested.js';
export * from './../checking/review.js';
export * from './../checking/hazards.js';
export * from './differences.js';
export * from './in-order.js';
export * from './merge.js';
export * from './new-line.js';
export * from './template.js';
