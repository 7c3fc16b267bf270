import { type Joint, type Setting, baseOf, jointTorque, type Pass } from '@jubb/sheet';
import type { AnyKeptEntry, KeptEntry } from '../entries/kept.js';
import { circlePoints, starOrder, outwardOrder, type Point } from '@jubb/core';

export interface PlannedPull {
  readonly pass: number;
  readonly place: number;
  /** Nothing for a round that goes by hand, by eye or by angle. */
  readonly torqueNm: number;
}

export interface JointRun {
  readonly joint: Joint;
  readonly passes: readonly Pass[];
  /** Every pull that is planned, in its order. */
  readonly plan: readonly PlannedPull[];
  readonly pulls: readonly KeptEntry<'pull'>[];
  /** How many were made before, and hold nothing any more. */
  readonly undone: number;
  /** Pulls that are still to be made, in their order, and the next of them. */
  readonly left: readonly PlannedPull[];
  readonly next: PlannedPull | undefined;
  readonly done: number;
  readonly total: number;
  /** Order number (from 1) of each place. */
  readonly numbers: readonly number[];
}

/** A check pass goes round again for as long as something turned, but not for ever. */
const MOST_CHECK_ROUNDS = 10;

/** Places (from 0, clockwise from twelve o'clock, or row by row) in the order they are tightened. */
function pullOrder(joint: Joint): readonly number[] {
  return joint.pattern.layout === 'circle' ? starOrder(joint.count) : outwardOrder(jointPoints(joint));
}

/** Where the fasteners stand, in whatever unit their layout has. */
export function jointPoints({ count, pattern }: Joint): readonly Point[] {
  switch (pattern.layout) {
    case 'circle':
      return circlePoints(count);
    case 'two-rows':
      return inRows(count, Math.ceil(count / 2));
    case 'grid':
      return inRows(count, pattern.columns ?? Math.ceil(Math.sqrt(count)));
    case 'free':
      return pattern.positions ?? inRows(count, count);
  }
}

/** The number of each place on the joint plate: when its turn comes, from 1. */
export function placeNumbers(joint: Joint): readonly number[] {
  const order = pullOrder(joint);
  return order.map((_, place) => order.indexOf(place) + 1);
}

/** What a pass of a joint wants at the fastener, N·m; nothing for a pass that it does not have, or where the book has no number. */
export function passTorque(joint: Joint, pass: number): number | undefined {
  const full = jointTorque(joint)?.torqueNm;
  if (full === undefined) return undefined;
  const passes = plannedPasses(joint, pullOrder(joint), full);
  return passes[pass - 1]?.torqueNm ?? (joint.pattern.checkPass ? full : undefined);
}

/** The passes of a joint from its sheet, and where its pulls stand; by the settings that it may lie over. */
export function jointRun(joint: Joint, entries: readonly AnyKeptEntry[], settings: readonly Setting[] = []): JointRun {
  const order = pullOrder(joint);
  const isPull = (entry: AnyKeptEntry): entry is KeptEntry<'pull'> =>
    entry.kind === 'pull' && entry.payload.joint === joint.ref && !entry.payload.trial;
  const pulls = sinceUndone(joint, entries, settings).filter(isPull);
  const torqueNm = jointTorque(joint)?.torqueNm;
  const passes = plannedPasses(joint, order, torqueNm);
  if (joint.pattern.checkPass && torqueNm !== undefined) {
    const round = Array.from({ length: joint.count }, (_, place) => place);
    for (let number = 0; number < MOST_CHECK_ROUNDS; number += 1) {
      const pass: Pass = { pass: passes.length + 1, torqueNm, order: round, check: true };
      passes.push(pass);
      if (!pulls.some((pull) => pull.payload.pass === pass.pass && pull.payload.result === 'turned')) break;
    }
  }
  const good = pulls.filter((pull) => pull.payload.result !== 'trouble');
  const isDone = (pass: number, place: number): boolean => good.some((pull) => pull.payload.pass === pass && pull.payload.place === place);
  const plan = passes.flatMap((pass) => pass.order.map((place): PlannedPull => ({ pass: pass.pass, place, torqueNm: pass.torqueNm })));
  const left = plan.filter((pull) => !isDone(pull.pass, pull.place));
  return {
    joint,
    passes,
    plan,
    pulls,
    undone: entries.filter(isPull).length - pulls.length,
    left,
    next: left[0],
    done: plan.length - left.length,
    total: plan.length,
    numbers: placeNumbers(joint),
  };
}

/** The same of its trial pulls alone, since the last one that was meant: how far a trial is. */
export function trialRun(joint: Joint, entries: readonly AnyKeptEntry[], settings: readonly Setting[] = []): JointRun {
  const since = entries.slice(
    entries.findLastIndex((entry) => entry.kind === 'pull' && entry.payload.joint === joint.ref && !entry.payload.trial) + 1,
  );
  const meant = since.map((entry): AnyKeptEntry => {
    if (entry.kind !== 'pull' || !entry.payload.trial) return entry;
    const { trial: _, ...payload } = entry.payload;
    return { ...entry, payload };
  });
  return jointRun(joint, meant, settings);
}

/**
 * What came after a joint was undone the last time, for a gear to be moved or another shim to be put in under it; a pull before
 * that holds nothing any more.
 */
export function sinceUndone(
  { ref }: Pick<Joint, 'ref'>,
  entries: readonly AnyKeptEntry[],
  settings: readonly Setting[],
): readonly AnyKeptEntry[] {
  const below = new Set(settings.flatMap((setting) => (setting.under?.includes(ref) ? [setting.ref] : [])));
  const undoes = (entry: AnyKeptEntry): boolean => {
    if (entry.kind === 'gear-moved') return entry.payload.undone.includes(ref);
    return entry.kind === 'worked' && entry.payload.setting !== undefined && below.has(entry.payload.setting);
  };
  return entries.slice(entries.findLastIndex(undoes) + 1);
}

/** The rounds of the sheet: its stages where it has them, else shares of the torque; by hand where the book has no number. */
function plannedPasses(joint: Joint, order: readonly number[], torqueNm: number | undefined): Pass[] {
  if (joint.stages)
    return joint.stages.map((stage, index) => ({
      pass: index + 1,
      torqueNm: stage.torque ? baseOf(stage.torque.figure, 'torque') : 0,
      order,
      check: false,
      stage,
    }));
  if (torqueNm === undefined) return [{ pass: 1, torqueNm: 0, order, check: false }];
  return joint.pattern.passes.map((share, index) => ({ pass: index + 1, torqueNm: torqueNm * share, order, check: false }));
}

function inRows(count: number, columns: number): readonly Point[] {
  return Array.from({ length: count }, (_, place) => ({ x: place % columns, y: Math.floor(place / columns) }));
}
