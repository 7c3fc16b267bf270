import type { Tool } from '@jubb/sheet';
import type { LiveLine } from '@jubb/wire';
import { SIGHT_ACTS, formatQuantity, watchPull, type PullPoint, type PullWanted, type Sight } from '@jubb/core';
import { useRef, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Chart } from '../../drawings/chart.tsx';
import { Care } from '../../kit/pieces.tsx';
import { useLines } from '../../link/use-lines.ts';

interface WrenchSendsProps {
  readonly wrench: Tool | undefined;
  /** What the wrench is to be set to, and what its pull is to look like there; none while that is not known. */
  readonly wanted: PullWanted | undefined;
  /** Number on the plate of the fastener that is due. */
  readonly number: number | undefined;
  readonly onPull: (line: LiveLine, sight?: Sight) => void;
  readonly onTrouble: (words: string, line: LiveLine, sight: Sight) => void;
}

/** Sights that are no verbs. */
const SAID: Partial<Record<Sight, string>> = { over: 'is over its window', 'already tight': 'is already tight' };

const FEWEST_POINTS = 3;
const MOST_POINTS = 400;

/**
 * Pulls as the wrench itself tells of them: a click, or a peak within what is wanted, is the pull.
 * One whose curve shows something waits for a word before it counts.
 */
export function WrenchSends({ wrench, wanted, number, onPull, onTrouble }: WrenchSendsProps): ReactElement | null {
  const [refused, setRefused] = useState<string>();
  const [doubtful, setAsked] = useState<{ readonly line: LiveLine; readonly sight: Sight; readonly number: number | undefined }>();
  // Once another one is due the question has gone.
  const asked = doubtful?.number === number ? doubtful : undefined;
  const [otherUnit, setOtherUnit] = useState<string>();
  const [curve, setCurve] = useState<readonly PullPoint[]>([]);
  const points = useRef<{ readonly last: LiveLine | undefined; readonly points: readonly PullPoint[] }>({ last: undefined, points: [] });
  /** Unit of the pulls so far: a wrench does not change it by itself. */
  const unit = useRef<string>(undefined);
  const each = (line: LiveLine): void => {
    const { base, angle, quantity } = line;
    const { last, points: held } = points.current;
    const begins = last === undefined || last.taken || (angle ?? 0) < (last.angle ?? 0);
    const before = begins ? [] : held;
    const next =
      base !== null && angle !== undefined && quantity === 'torque' ? [...before, { angle, torque: base }].slice(-MOST_POINTS) : before;
    points.current = { last: line, points: next };
    setCurve(next);
  };
  const live = useLines(
    true,
    (line) => {
      setAsked(undefined);
      setOtherUnit(undefined);
      const changed = line.quantity === 'torque' && unit.current !== undefined && unit.current !== line.unit;
      const why = changed
        ? `It sends ${line.unit} now, ${unit.current} before: somebody pressed its unit key. Set it back to ${unit.current}, and pull this one again`
        : against(line, wrench, wanted);
      const sight = why === undefined && wanted ? watchPull(points.current.points, wanted) : undefined;
      // A pull that shows something is asked about, also where it did not reach its torque.
      const low = sight === undefined && wanted ? under(line, wanted) : undefined;
      setRefused(why ?? low);
      if (changed) setOtherUnit(line.unit);
      if (why !== undefined) return;
      unit.current = line.unit;
      if (sight !== undefined) setAsked({ line, sight, number });
      else if (low === undefined) onPull(line);
    },
    each,
  );
  const seen = asked?.sight ?? (live && wanted && live.quantity === 'torque' ? watchPull(curve, wanted) : undefined);
  if (refused === undefined && asked === undefined && live?.quantity !== 'torque') return null;
  return (
    <>
      {curve.length >= FEWEST_POINTS ? (
        <div className="drawing" style={{ maxWidth: 420 }}>
          <Chart
            name="This pull"
            x="degrees"
            y="N·m"
            lines={[{ name: 'pull', points: curve.map(({ angle, torque }) => [angle, torque] as const) }]}
            levels={wanted === undefined ? [] : [{ name: 'set', at: wanted.torque }]}
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
      {otherUnit === undefined ? null : (
        <Button
          variant="plain"
          className="mb-2"
          onClick={() => {
            unit.current = otherUnit;
            setOtherUnit(undefined);
            setRefused(undefined);
          }}
        >
          It is meant to send {otherUnit}
        </Button>
      )}
      {seen ? (
        <Care title={`Number ${number ?? ''} ${SAID[seen] ?? seen}`}>
          {SIGHT_ACTS[seen]}
          {asked ? (
            <div className="keys mt-2">
              <Button
                variant="primary"
                onClick={() => {
                  setAsked(undefined);
                  onTrouble(
                    `${asked.sight}: ${formatQuantity(asked.line.base ?? 0, 'torque', asked.line.unit)}, ${asked.line.angle ?? 0}°`,
                    asked.line,
                    asked.sight,
                  );
                }}
              >
                Note the trouble
              </Button>
              <Button variant="plain" onClick={() => setAsked(undefined)}>
                It was another one: do not count it
              </Button>
              <Button
                variant="plain"
                onClick={() => {
                  setAsked(undefined);
                  onPull(asked.line, asked.sight);
                }}
              >
                It is right, keep it
              </Button>
            </div>
          ) : null}
        </Care>
      ) : null}
    </>
  );
}

function against(line: LiveLine, wrench: Tool | undefined, wanted: PullWanted | undefined): string | undefined {
  if (line.quantity !== 'torque') return `The instrument sent ${line.quantity}; here a torque is pulled`;
  if (line.marked !== undefined) return `Not taken: ${line.marked}`;
  if (wrench === undefined || wanted === undefined) return 'Pick the wrench first';
  if (line.toolId !== wrench.id) return `Another wrench sent it; here it is ${wrench.tag}. Pick the one in your hand (W)`;
  // A click tells that it is over its setting, which is all that it can tell.
  if (line.base === null || line.base <= wanted.torque * (1 + wanted.share)) return undefined;
  return `${write(line.base, line)}, over the ${write(wanted.torque, line)} that is wanted: slacken it, or note the trouble (X)`;
}

function under(line: LiveLine, { torque, share }: PullWanted): string | undefined {
  if (line.base === null || line.base >= torque * (1 - share)) return undefined;
  return `${write(line.base, line)} only, ${write(torque, line)} is wanted: pull again`;
}

function write(torque: number, { unit }: LiveLine): string {
  return formatQuantity(torque, 'torque', unit);
}
