export * from './job/index.js';
export * from './entry/entry.js';
export * from './entry/payloads.js';
export * from './dto/bodies.js';
export * from './sheet/file.js';
export * from './sheet/check.js';
export * from './sheet/read.js';
export * from './sheet/schema.js';
