/** What is known about a model, as a page or a job reads it. */
export * from './cut.js';
export * from './days.js';
export * from './words.js';
export * from './tool.js';
export * from './model/choices.js';
export * from './model/lists.js';
export * from './model/ref-of.js';
export * from './model/resolve.js';
export * from './model/scope.js';
export * from './model/sourced.js';
export * from './model/source-words.js';
export * from './checking/check.js';
export type * from './model/file.js';
export type * from './model/job-scope.js';
export type { CompletePart, Review } from './checking/review.js';
export type { Finding, Severity } from './checking/rules/rule.js';
export type { Difference } from './editing/differences.js';
export type { FieldIssue } from './given/validation.js';
