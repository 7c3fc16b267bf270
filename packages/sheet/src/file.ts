/** The sheet file: its classes, its checks and its published schema. */
export * from './model/file.js';
export * from './checking/check.js';
export * from './reading/schema.js';
