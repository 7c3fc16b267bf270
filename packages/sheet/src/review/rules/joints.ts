import type { Joint, SheetFile } from '../../model/file.js';
import { jointTorque } from '../../model/resolve.js';
import { finding, type Finding } from './rule.js';
import { stepWords } from './steps.js';
import { formatQuantity, parseThread, pinFindsNoSlot, torqueAtYield } from '@jubb/core';

export function* jointsHaveNumbers(sheet: SheetFile): Iterable<Finding> {
  for (const joint of sheet.joints) {
    if (joint.torque ?? joint.stages?.some((stage) => stage.torque ?? stage.angle)) continue;
    // Rounds that end in what is seen or felt want no figure.
    if (joint.stages?.every(({ until }) => until !== undefined)) continue;
    if (joint.stages && !pulled(sheet, joint.ref)) continue;
    yield finding(
      pulled(sheet, joint.ref) ? 'stop' : 'care',
      'joints',
      sheet,
      joint.ref,
      'torque.figure',
      `${joint.name} have no torque`,
      'Give the number from the book; when the book has none, have one worked out from thread, class and surface, and mark it calculated.',
    );
  }
}

function pulled(sheet: SheetFile, ref: string): boolean {
  return sheet.steps.some(({ record }) => record.kind === 'torque' && record.joint === ref);
}

/** Whether the screw yields by a torque even where friction is as high as it may be; said by itself. */
export function yieldsDry({ thread, propertyClass }: Joint, torqueNm: number): boolean {
  const known = parseThread(thread);
  const most = known && propertyClass !== undefined ? torqueAtYield(known, propertyClass, HIGH_FRICTION, 1) : undefined;
  return most !== undefined && torqueNm > most;
}

/** Dry steel screws at most have about this much friction; with less, the screw yields at a lower torque still. */
const HIGH_FRICTION = 0.18;

export function* torquesFitThreads(sheet: SheetFile): Iterable<Finding> {
  for (const joint of sheet.joints) {
    const thread = parseThread(joint.thread);
    const given = jointTorque(joint);
    if (!thread) {
      yield finding(
        'care',
        'joints',
        sheet,
        joint.ref,
        'thread',
        `${joint.name}: "${joint.thread}" names no thread`,
        'Write it as M12x1.25 or 1/2-20 UNF.',
      );
      continue;
    }
    // An angle after a snug torque takes the screw on from there; its own figure says nothing of the end.
    if (!given || joint.propertyClass === undefined || joint.stages?.some(({ kind }) => kind === 'angle')) continue;
    const most = torqueAtYield(thread, joint.propertyClass, HIGH_FRICTION, 1);
    if (most !== undefined && given.torqueNm > most)
      yield finding(
        'stop',
        'joints',
        sheet,
        joint.ref,
        'torque.figure',
        `${joint.name}: ${joint.torque?.figure ?? ''} is over what ${joint.thread} of class ${joint.propertyClass} takes, even dry: it yields at ${formatQuantity(most, 'torque')}`,
        'Look up the torque, the thread and the class again.',
      );
  }
}

export function* countsAddUp(sheet: SheetFile): Iterable<Finding> {
  for (const joint of sheet.joints) {
    const say = (field: string, words: string, mend: string): Finding =>
      finding('stop', 'joints', sheet, joint.ref, field, `${joint.name}: ${words}`, mend);
    const part = sheet.parts.find(({ ref }) => ref === joint.part);
    if (part && part.quantity < joint.count)
      yield say('count', `${joint.count} in the joint, ${part.quantity} among the parts`, 'Count them again.');
    const { layout, columns } = joint.pattern;
    if (layout === 'two-rows' && joint.count % 2 === 1)
      yield say('count', `${joint.count} do not stand in two even rows`, 'Correct the count or the layout.');
    if (layout === 'grid' && columns !== undefined && joint.count % columns !== 0)
      yield say('pattern.columns', `${joint.count} do not stand in full rows of ${columns}`, 'Correct the count or the rows.');
    const lengths = (joint.lengths ?? []).reduce((sum, { count }) => sum + count, 0);
    if (joint.lengths && lengths !== joint.count)
      yield say('count', `the lengths count ${lengths}, the joint ${joint.count}`, 'Count each length again.');
    if (joint.renewEachTime && part && part.policy !== 'renew')
      yield finding(
        'care',
        'parts',
        sheet,
        part.ref,
        'policy',
        `${joint.name} are new each time, their part is not`,
        'Set the policy of the part to renew.',
      );
  }
}

/** A thread that is written as a left-hand one, of a joint that turns right, or a castle nut whose pin finds no slot. */
export function* nutsCanBe(sheet: SheetFile): Iterable<Finding> {
  for (const joint of sheet.joints)
    if (parseThread(joint.thread)?.hand === 'left' && joint.hand === 'right')
      yield finding(
        'stop',
        'joints',
        sheet,
        joint.ref,
        'hand',
        `${joint.name}: ${joint.thread} is a left-hand thread, the joint is said to turn right`,
        'Set the hand to left, or correct the thread.',
      );
  for (const { ref, name, nut } of sheet.settings)
    if (nut && pinFindsNoSlot(nut.slots, nut.openings))
      yield finding(
        'stop',
        'settings',
        sheet,
        ref,
        'nut.slots',
        `${name}: a pin right through the spindle finds no slot opposite among ${nut.slots}`,
        'Count the slots again, or give the one opening that locks.',
      );
}

export function* leftHandIsSaid(sheet: SheetFile): Iterable<Finding> {
  for (const joint of sheet.joints) {
    if (joint.hand !== 'left') continue;
    const said = sheet.steps.some((step) => stepWords(step).includes('left-hand'));
    if (!said)
      yield finding(
        'care',
        'joints',
        sheet,
        joint.ref,
        'hand',
        `${joint.name} have a left-hand thread, and no step says so`,
        'Say "left-hand" in the step that undoes them.',
      );
  }
}
