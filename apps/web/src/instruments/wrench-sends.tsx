import type { LiveLine, Tool } from '@jubb/contract/job';
import { formatQuantity } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import { Chart } from '../drawings/chart.tsx';
import { useLines } from './use-lines.ts';

interface WrenchSendsProps {
  readonly wrench: Tool | undefined;
  /** What the wrench is to be set to, N·m, and by which share it may be off. */
  readonly settingNm: number | undefined;
  readonly share: number;
  readonly onPull: (line: LiveLine) => void;
}

/** Pulls as the wrench itself tells of them: a click, or a peak within what is wanted, is the pull. */
export function WrenchSends({ wrench, settingNm, share, onPull }: WrenchSendsProps): ReactElement | null {
  const [refused, setRefused] = useState<string>();
  const live = useLines(true, (line) => {
    const why = against(line, wrench, settingNm, share);
    setRefused(why);
    if (why === undefined) onPull(line);
  });
  const curve = useCurve(live);
  if (refused === undefined && live?.quantity !== 'torque') return null;
  return (
    <>
      {curve.length >= FEWEST_POINTS ? (
        <div className="drawing" style={{ maxWidth: 420 }}>
          <Chart
            name="This pull"
            x="degrees"
            y="N·m"
            lines={[{ name: 'pull', points: curve }]}
            levels={settingNm === undefined ? [] : [{ name: 'set', at: settingNm }]}
          />
        </div>
      ) : null}
      <p className="mb-1" role="status">
        {live?.quantity === 'torque' && live.base !== null ? (
          <b className="fig fs-3">
            {formatQuantity(live.base, 'torque', live.unit)}
            {live.angle === undefined ? '' : `, ${live.angle}°`}
          </b>
        ) : null}{' '}
        {refused ? <span className="v-out">{refused}</span> : null}
      </p>
    </>
  );
}

const FEWEST_POINTS = 3;
const MOST_POINTS = 400;

/** Torque over angle of the pull in hand, as the wrench passes by; the next pull begins a new one. */
function useCurve(live: LiveLine | undefined): readonly (readonly [number, number])[] {
  const [held, setHeld] = useState<{ readonly last: LiveLine | undefined; readonly points: readonly (readonly [number, number])[] }>({
    last: undefined,
    points: [],
  });
  if (live !== held.last) {
    const { base, angle } = live ?? {};
    const begins = held.last === undefined || held.last.taken || live === undefined || (angle ?? 0) < (held.last.angle ?? 0);
    const before = begins ? [] : held.points;
    const points = typeof base === 'number' && angle !== undefined ? [...before, [angle, base] as const].slice(-MOST_POINTS) : before;
    setHeld({ last: live, points });
  }
  return held.points;
}

function against(line: LiveLine, wrench: Tool | undefined, settingNm: number | undefined, share: number): string | undefined {
  if (line.quantity !== 'torque') return `The instrument sent ${line.quantity}; here a torque is pulled`;
  if (line.marked !== undefined) return `Not taken: ${line.marked}`;
  if (wrench === undefined || settingNm === undefined) return 'Pick the wrench first';
  if (line.toolId !== wrench.id) return `Another wrench sent it; here it is ${wrench.tag}. Pick the one in your hand (W)`;
  // A click tells that it is over its setting, which is all that it can tell.
  if (line.base === null) return undefined;
  const off = line.base / settingNm - 1;
  if (Math.abs(off) <= share) return undefined;
  const peak = formatQuantity(line.base, 'torque', line.unit);
  const wanted = formatQuantity(settingNm, 'torque', line.unit);
  return off < 0
    ? `${peak} only, ${wanted} is wanted: pull again`
    : `${peak}, over the ${wanted} that is wanted: slacken it, or note the trouble (X)`;
}
