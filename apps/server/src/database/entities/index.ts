export * from './people.js';
export * from './customers.js';
export * from './sheets.js';
export * from './crib.js';
export * from './jobs.js';
export * from './benches.js';
export * from './stores.js';
