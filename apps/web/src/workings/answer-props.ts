import type { WorkingDescription, WorkingRun } from '@jubb/core';

/** What an answer is written from. */
export interface AnswerProps {
  readonly working: WorkingDescription;
  readonly run: WorkingRun;
  /** It is the example's answer, and nobody's. */
  readonly isExample: boolean;
}
