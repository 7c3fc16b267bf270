/** What crosses the wire, other than entries. */
export * from './answers.js';
export * from './begin.js';
export * from './bodies.js';
export * from './crib.js';
export * from './endpoint.js';
export * from './endpoints.js';
export * from './customers.js';
export * from './lists.js';
export * from './people.js';
export * from './problems.js';
export * from './quotes.js';
export * from './shop.js';
export * from './stores.js';
export * from './tablets.js';
export * from './taken.js';
export * from './views.js';
export * from './way-in.js';
