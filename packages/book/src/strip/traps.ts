import { type SheetFile, type Step, freedBy, partName } from '@jubb/sheet';
import type { JobState } from '../state.js';
import { isActed } from '../steps/define-step.js';

/** A step that comes before another and is not done yet. */
export interface Forerunner {
  readonly step: string;
  readonly title: string;
  /** Why it comes first, as far as the sheet says. */
  readonly why: string;
}

/** What the sheet wants done before a step, and is not: its forerunners, and the steps that take off what is in its way. */
export function forerunners({ sheet, steps }: Pick<JobState, 'sheet' | 'steps'>, step: Step): readonly Forerunner[] {
  const open = steps.filter(({ done }) => !done);
  // What is done and not looked at yet is off, or in; it is looked at before the next act all the same.
  const undone = new Map(open.filter((state) => !isActed(state)).map((state) => [state.step.ref, state.step]));
  const before = (step.after ?? [])
    .flatMap((ref) => open.find((state) => state.step.ref === ref) ?? [])
    .map((state) => said(state.step, (isActed(state) ? state.problem : state.step.why) ?? ''));
  const inTheWay = (step.needsOff ?? []).flatMap((part) => {
    const frees = sheet.steps.filter((other) => other.ref !== step.ref && freedBy(other).includes(part));
    const [first] = frees;
    return first && frees.every(({ ref }) => undone.has(ref)) ? [said(first, stillOn(sheet, part))] : [];
  });
  const early = [...undone.values()]
    .filter((other) => other.tooLateAfter === step.ref)
    .map((other) => said(other, 'It cannot be done any more after this.'));
  const known = new Set<string>();
  return [...before, ...early, ...inTheWay].filter((one) => !known.has(one.step) && known.add(one.step));
}

function said({ ref, title }: Step, why: string): Forerunner {
  return { step: ref, title, why };
}

function stillOn(sheet: SheetFile, part: string): string {
  const name = partName(sheet, part);
  return `The ${name.charAt(0).toLowerCase()}${name.slice(1)} is still on.`;
}
