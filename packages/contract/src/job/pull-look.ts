import { LITTLE_ANGLE, MUCH_ANGLE } from '@jubb/core';
import type { KeptEntry } from '../entry/kept.js';
import type { JointRun } from './joint-run.js';

/** Brothers that make a middle. */
const FEWEST = 3;

export interface PullLook {
  readonly what: 'stopped early' | 'turned too far';
  readonly todo: string;
}

/**
 * What the angle of a pull tells against its brothers of the same round: torque with little angle
 * clamps nothing, much angle for the torque gives somewhere. Nothing while there is no middle.
 */
export function pullLook({ pulls }: JointRun, pull: KeptEntry<'pull'>): PullLook | undefined {
  const { angle, pass, place } = pull.payload;
  const others = pulls
    .filter(({ payload }) => payload.pass === pass && payload.place !== place && payload.result === 'clicked')
    .flatMap(({ payload }) => payload.angle ?? [])
    .toSorted((one, other) => one - other);
  const middle = others[Math.floor(others.length / 2)];
  if (angle === undefined || middle === undefined || others.length < FEWEST || middle <= 0) return undefined;
  if (angle < LITTLE_ANGLE * middle)
    return {
      what: 'stopped early',
      todo: `${angle}° where its brothers turn some ${middle}°: a crossed thread, a hole that ends, or pulled a second time. Take it out and look.`,
    };
  if (angle > MUCH_ANGLE * middle)
    return {
      what: 'turned too far',
      todo: `${angle}° where its brothers turn some ${middle}°: the screw stretches, the thread gives, or something soft lies between. Take it out and look.`,
    };
  return undefined;
}

const COLUMNS = ['joint', 'pass', 'number', 'wanted N·m', 'result', 'peak N·m', 'angle °', 'looks', 'tool', 'by', 'taken at'] as const;

interface Names {
  tool(id: string | null): string;
  person(id: string): string;
}

/** Every pull of a job as rows of a table, its head first. */
export function torqueLog(joints: readonly JointRun[], names: Names): readonly (readonly string[])[] {
  const rows = joints.flatMap((run) =>
    run.pulls.map((pull): readonly string[] => {
      const { pass, place, torque, result, peak, angle, note } = pull.payload;
      return [
        run.joint.name,
        String(pass),
        String(run.numbers[place] ?? place + 1),
        torque > 0 ? String(torque) : 'by hand, unmeasured',
        note ? `${result}: ${note}` : result,
        peak === undefined ? '' : String(peak),
        angle === undefined ? '' : String(angle),
        pullLook(run, pull)?.what ?? '',
        names.tool(pull.toolId),
        names.person(pull.personId),
        pull.takenAt,
      ];
    }),
  );
  return [COLUMNS, ...rows];
}
