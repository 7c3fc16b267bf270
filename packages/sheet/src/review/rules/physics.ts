import { formatQuantity, workings } from '@jubb/core';
import type { Fit, Joint, Setting, SheetFile } from '../../model/file.js';
import { baseOf, find, jointTorque, settingQuantity, settingWindow } from '../../model/resolve.js';
import { yieldsDry } from './joints.js';
import { finding, type Finding } from './rule.js';

/** A seat and the number on the ring may differ by so much, mm: a nominal size is written as one. */
const SAME_MM = 0.05;

/** A ring sits on a seat of its own size: the bore or the outside that its designation says (ISO 15, ISO 355). */
export function* fitsMatchTheirRing(sheet: SheetFile): Iterable<Finding> {
  for (const fit of sheet.fits ?? []) {
    const wanted = ringSize(sheet, fit);
    const seat = baseOf(fit.seat, 'length');
    if (!wanted || Math.abs(wanted.size - seat) <= SAME_MM) continue;
    yield finding(
      'stop',
      'fits',
      sheet,
      fit.ref,
      'seat',
      `${fit.name}: a seat of ${fit.seat}, and the ${wanted.what} of a ${wanted.name} is ${formatQuantity(wanted.size, 'length')}`,
      'Mend the seat, the part, or its designation.',
    );
  }
}

interface RingSize {
  readonly name: string;
  readonly what: 'bore' | 'outside';
  readonly size: number;
}

/** The size of the ring that sits there; nothing where no table has it, or the fit is on both rings. */
function ringSize(sheet: SheetFile, { part, pressedOn }: Fit): RingSize | undefined {
  const { designation } = find(sheet.parts, part) ?? {};
  const what = pressedOn === 'inner ring' ? 'bore' : pressedOn === 'outer ring' ? 'outside' : undefined;
  if (designation === undefined || what === undefined) return undefined;
  const run = workings.run('bearing.identify', { what: 'designation', designation });
  return run?.ok ? { name: designation, what, size: Number(run.run.output[what]) } : undefined;
}

const FEMALE: Readonly<Record<NonNullable<Joint['into']>, string>> = {
  steel: 'steel',
  'cast iron': 'cast-iron',
  aluminium: 'aluminium',
  plastic: 'aluminium',
};

/** A torque stays under the most that thread, class, surface and what it is screwed into allow, as the working without a number has it. */
export function* torquesUnderTheMost(sheet: SheetFile): Iterable<Finding> {
  for (const joint of sheet.joints) {
    const given = jointTorque(joint);
    // An angle goes on from its snug torque: that figure says nothing of the end.
    if (!given || joint.stages?.some(({ kind }) => kind === 'angle')) continue;
    const most = mostFor(joint);
    if (most === undefined || given.torqueNm <= most.high || yieldsDry(joint, given.torqueNm)) continue;
    yield finding(
      'stop',
      'joints',
      sheet,
      joint.ref,
      'torque.figure',
      `${joint.name}: ${joint.torque?.figure ?? ''} is over the ${formatQuantity(most.high, 'torque')} that ${joint.thread} ${joint.propertyClass ?? ''} takes, ${joint.surface ?? joint.condition}: ${most.governs}`,
      'Look up torque, thread, class and surface again; where the thread is cut in something soft, give the length that is engaged.',
    );
  }
}

/** The most for a joint, N·m, and what would go first; nothing where the working knows nothing of it. */
function mostFor({
  thread,
  propertyClass,
  surface,
  into,
  engaged,
}: Joint): { readonly high: number; readonly governs: string } | undefined {
  if (propertyClass === undefined || surface === undefined) return undefined;
  const run = workings.run('torque.no-spec', {
    thread,
    propertyClass,
    surface,
    ...(into === undefined ? {} : { female: FEMALE[into] }),
    ...(engaged === undefined ? {} : { engaged }),
  });
  if (!run?.ok) return undefined;
  return { high: Number(run.run.output['high']), governs: String(run.run.output['governs']) };
}

/** A rubber that its medium takes apart is never fitted, and what nobody knows is said. */
export function* rubbersStandTheirMedium(sheet: SheetFile): Iterable<Finding> {
  for (const { ref, part, material, medium } of sheet.seals) {
    const run = medium === undefined ? undefined : workings.run('seal.material', { material, medium });
    // A make-up of several, or one that the table does not have, is not judged.
    if (!run?.ok) continue;
    const { rating, why } = run.run.output;
    if (rating !== 'no' && rating !== 'unknown') continue;
    yield finding(
      rating === 'no' ? 'stop' : 'care',
      'seals',
      sheet,
      ref,
      'material',
      `${find(sheet.parts, part)?.name ?? ref}: ${material} in ${medium!.replaceAll('-', ' ')}: ${String(rating)}: ${String(why)}`,
      'Look the rubber up again, or what it is wet with.',
    );
  }
}

/** What is aimed at lies in the window. */
export function* aimsAreInside(sheet: SheetFile): Iterable<Finding> {
  for (const setting of sheet.settings) {
    if (!setting.aim || isInside(setting)) continue;
    yield finding(
      'stop',
      'settings',
      sheet,
      setting.ref,
      'aim.figure',
      `${setting.name}: the aim of ${setting.aim.figure} lies outside the window`,
      'Mend the aim, or the window.',
    );
  }
}

function isInside(setting: Setting): boolean {
  const aim = baseOf(setting.aim!.figure, settingQuantity(setting));
  const { from, to } = settingWindow(setting);
  return aim >= from && aim <= to;
}
