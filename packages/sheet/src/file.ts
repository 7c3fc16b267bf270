/** The sheet file: its classes, its checks and its published schema. */
export * from './checking/sheet-issues.js';
export * from './model/file.js';
export * from './reading/schema.js';
