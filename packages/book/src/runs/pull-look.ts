import type { KeptEntry } from '../entries/kept.js';
import { pulledTo } from '../words.js';
import type { JointRun } from './joint-run.js';
import { LITTLE_ANGLE, MUCH_ANGLE, SIGHT_ACTS, type Sight } from '@jubb/core';

/** Brothers that make a middle. */
const FEWEST = 3;

export interface PullLook {
  readonly what: 'stopped early' | 'turned too far' | 'out of turn' | 'pulled twice' | Sight;
  readonly todo: string;
}

type Pull = KeptEntry<'pull'>;

/**
 * What a kept pull tells: by its order, by the shape of its curve, and by its angle against its
 * brothers of the same round. Torque with little angle clamps nothing, much angle for the torque
 * gives somewhere. Nothing while there is no middle.
 */
export function pullLook(run: JointRun, pull: Pull): PullLook | undefined {
  return lookOfOrder(run, pull) ?? lookOfCurve(pull) ?? lookOfAngle(run, pull);
}

/** The middle of the angles of a round, degrees; none while its brothers are too few. */
export function middleAngle({ pulls }: JointRun, pass: number, but: number): number | undefined {
  const angles = pulls
    .filter(({ payload }) => payload.pass === pass && payload.place !== but && payload.result === 'clicked')
    .flatMap(({ payload }) => payload.angle ?? [])
    .toSorted((one, other) => one - other);
  return angles.length < FEWEST ? undefined : angles[Math.floor(angles.length / 2)];
}

function lookOfOrder({ pulls, plan, numbers }: JointRun, pull: Pull): PullLook | undefined {
  const { pass, place } = pull.payload;
  const key = (one: { readonly pass: number; readonly place: number }): string => `${one.pass} ${one.place}`;
  const before = pulls.slice(0, Math.max(0, pulls.indexOf(pull))).map(({ payload }) => payload);
  const done = new Set(before.filter(({ result }) => result !== 'trouble').map(key));
  const last = before.findLast((one) => key(one) === key(pull.payload));
  if (done.has(key(pull.payload)) && last?.result !== 'trouble')
    return { what: 'pulled twice', todo: 'It was tight already: each further pull stretches it. Slacken it, and pull it once.' };
  const due = plan.find((one) => !done.has(key(one)));
  if (due === undefined || (due.pass === pass && due.place === place)) return undefined;
  const isLast = pass === plan.at(-1)?.pass;
  return {
    what: 'out of turn',
    todo: `Number ${numbers[due.place] ?? ''} of pass ${due.pass} was due. ${
      isLast ? 'Slacken this one half a turn and go on by the order.' : 'Go on by the order: the next pass evens it out.'
    }`,
  };
}

function lookOfCurve({ payload: { sight } }: Pull): PullLook | undefined {
  return sight && { what: sight, todo: SIGHT_ACTS[sight] };
}

function lookOfAngle(run: JointRun, { payload: { angle, pass, place } }: Pull): PullLook | undefined {
  const middle = middleAngle(run, pass, place);
  if (angle === undefined || middle === undefined || middle <= 0) return undefined;
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
        torque > 0 ? String(torque) : pulledTo(pull.payload, run.joint),
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
