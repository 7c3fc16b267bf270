/** What is given, and how it is checked: the same for form, file and request. */
export * from './decimals.js';
export * from './figures.js';
export * from './instants.js';
export * from './line.js';
export * from './rows.js';
export * from './validation.js';
export * from './version.js';
export * from './job-scope.js';
