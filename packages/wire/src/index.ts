/** What crosses the wire, other than entries. */
export * from './bodies.js';
export * from './crib.js';
export * from './problems.js';
export * from './quotes.js';
export * from './shop.js';
export * from './stores.js';
export * from './views.js';
