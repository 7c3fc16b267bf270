export * from './dto/bodies.js';
export * from './validation.js';
