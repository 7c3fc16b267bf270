import { type Fastening, type Joint, type SheetFile, type Step, find } from '@jubb/sheet';
import { isKind, type AnyKeptEntry } from '../entries/kept.js';
import { sinceUndone } from '../runs/joint-run.js';
import { newPartsMissing, partsPutIn, type NewPart } from './new-parts.js';

/** A joint or a fastening whose pieces hold but once. */
export type EachTime = Pick<Joint | Fastening, 'ref' | 'name' | 'count'> & { readonly part: string };

/** Why the new part is seen before a step: it cannot be undone, its fasteners are new each time, or what it puts in is renewed. */
export type NewFirst =
  | { readonly why: 'no way back' }
  | { readonly why: 'new each time'; readonly of: EachTime }
  | { readonly why: 'renewed'; readonly parts: readonly NewPart[] };

/** What was loosened on arrival or in the strip goes by the old ones. */
function putsTogether({ stage }: Step): boolean {
  return stage === 'build' || stage === 'prove';
}

/** Whether something new must be seen before a step, by its sheet; which parts are renewed is seen on the job alone. */
export function mayNeedNew(sheet: SheetFile, step: Step | undefined): boolean {
  if (!step) return false;
  return (
    step.noWayBack === true ||
    (putsTogether(step) &&
      (jointEachTime(sheet, step) !== undefined || fasteningsEachTime(sheet, step).length > 0 || partsPutIn(sheet, step).length > 0))
  );
}

function jointEachTime(sheet: SheetFile, { record }: Step): Joint | undefined {
  const joint = find(sheet.joints, record.joint);
  return joint?.renewEachTime ? joint : undefined;
}

/** Fastenings that a step seats, and that are new each time. */
export function fasteningsEachTime(sheet: SheetFile, { seats = [] }: Pick<Step, 'seats'>): readonly EachTime[] {
  return seats.flatMap((ref) => {
    const { name, count, part, renewEachTime } = find(sheet.fastenings ?? [], ref) ?? {};
    return renewEachTime && part !== undefined ? [{ ref, name: name!, count: count!, part }] : [];
  });
}

/** What is not here yet that must be before a step; the new fasteners of a joint that was undone again have become old ones. */
export function newMissing(sheet: SheetFile, step: Step | undefined, live: readonly AnyKeptEntry[]): NewFirst | undefined {
  if (!step) return undefined;
  // Said at the step, or of the part before anybody stood at a step: the screws of another joint are not these.
  const isSaid = (since: readonly AnyKeptEntry[], part?: string): boolean =>
    since.filter(isKind('replacement-here')).some(({ step: at, payload }) => {
      if (at === step.ref) return part === undefined || payload.part === undefined || payload.part === part;
      return at === null && part !== undefined && payload.part === part;
    });
  if (step.noWayBack && !isSaid(live)) return { why: 'no way back' };
  if (!putsTogether(step)) return undefined;
  const joint = jointEachTime(sheet, step);
  if (joint && !isSaid(sinceUndone(joint, live, sheet.settings), joint.part)) return { why: 'new each time', of: joint };
  const fastenings = fasteningsEachTime(sheet, step);
  const old = fastenings.find(({ part }) => !isSaid(live, part));
  if (old) return { why: 'new each time', of: old };
  const parts = newPartsMissing(
    sheet,
    live,
    partsPutIn(sheet, step).filter((ref) => ref !== joint?.part && fastenings.every(({ part }) => ref !== part)),
  );
  return parts.length > 0 ? { why: 'renewed', parts } : undefined;
}
