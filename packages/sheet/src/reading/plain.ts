import type { FieldIssue } from '../given/validation.js';

export interface LocatedIssue extends FieldIssue {
  /** Line of the file, from 1. */
  readonly line: number;
}

/** Where a path of a file stands. */
export type Locate = (path: readonly (string | number)[]) => number | undefined;
export type PlainRead =
  { readonly ok: true; readonly plain: unknown; readonly lineOf: Locate } | { readonly ok: false; readonly issue: LocatedIssue };
