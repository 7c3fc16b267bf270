/** All that a step can record: its file, and its line here. */
export * from './arrival.js';
export * from './count.js';
export * from './decide.js';
export * from './fit.js';
export * from './fluid.js';
export * from './hand-over.js';
export * from './look.js';
export * from './pattern.js';
export * from './proof.js';
export * from './reading.js';
export * from './reconcile.js';
export * from './seal.js';
export * from './setting.js';
export * from './sign.js';
export * from './tick.js';
export * from './torque.js';
