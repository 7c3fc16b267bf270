import type { RecordKind, Step } from '@jubb/sheet';
import { holdWords, isLookedAt } from '../hold-points.js';
import { lookWords, looksDue } from '../looks-due.js';
import { hiddenBy } from '../runs/proof.js';
import * as all from './all.js';
import type { StepContext, StepKind, StepState } from './define-step.js';

type Listed = (typeof all)[keyof typeof all]['record'];

/** Does not compile for something that a sheet's step may record and that has no file here. */
export type EveryRecordIsListed = Exclude<RecordKind, Listed> extends never ? true : ['not listed', Exclude<RecordKind, Listed>];
const listed: EveryRecordIsListed = true;

const STEPS: ReadonlyMap<RecordKind, StepKind<RecordKind>> = new Map(
  listed && Object.values(all).map((kind): [RecordKind, StepKind<RecordKind>] => [kind.record, kind]),
);

/** What there is to know of what a step records. */
export function stepKind({ record }: Pick<Step, 'record'>): StepKind<RecordKind> {
  return STEPS.get(record.kind)!;
}

export function stepState(step: Step, job: StepContext): StepState {
  const own = job.live.filter((entry) => entry.step === step.ref);
  const stands = stepKind(step).stands(step, own, job);
  if (!stands.done) return { step, ...stands };
  // What it hid was moved again: it was opened for that, and is closed anew.
  const bare = hiddenBy(job.sheet, step).find(({ ref }) => job.settings.some((run) => run.setting.ref === ref && !run.proved));
  if (bare) return { step, ...stands, done: false, problem: `${bare.name} was moved since: read it, then close it again` };
  const looks = looksDue(job.sheet, step, job.live);
  if (looks.length > 0) return { step, ...stands, done: false, looks, problem: looks.map((look) => lookWords(job.sheet, look)).join('; ') };
  const { holdPoint } = step;
  if (!holdPoint || isLookedAt(own)) return { step, ...stands };
  return { step, ...stands, done: false, holds: holdPoint, problem: `waits until ${holdWords(holdPoint)}` };
}
