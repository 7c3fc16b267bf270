import { dropZeros, roundWithin } from '@jubb/core';
import { scaleLinear } from 'd3-scale';
import type { ReactElement } from 'react';

interface LimitStripProps {
  readonly name: string;
  readonly readings: readonly number[];
  /** What earlier rebuilds found: drawn under the rule, thin. */
  readonly before?: readonly number[];
  readonly from?: number | undefined;
  readonly to?: number | undefined;
  /** Kept off each limit: the zone in which the tool cannot tell. */
  readonly guard?: number | undefined;
  readonly verdict?: string | undefined;
  readonly unit: string;
}

const WIDTH = 460;
const LEFT = 14;
const RIGHT = WIDTH - 14;
const RULE_Y = 34;
const BAND_Y = 40;
const BAND_H = 18;

/** A judged figure on a steel rule: the window filled, the unsure zones hatched, readings as ticks. */
export function LimitStrip({ name, readings, before = [], from, to, guard = 0, verdict, unit }: LimitStripProps): ReactElement {
  const [low, high] = extent([...readings, ...before], from, to, guard);
  const x = scaleLinear().domain([low, high]).range([LEFT, RIGHT]);
  const windowFrom = x(from ?? low);
  const windowTo = x(to ?? high);
  const write = (figure: number): string => {
    const [scale, letter] = Math.abs(figure) >= 1e6 ? [1e6, ' M'] : Math.abs(figure) >= 1e4 ? [1e3, ' k'] : [1, ''];
    return `${dropZeros(roundWithin(figure / scale, 3))}${letter}`;
  };
  const words = describe(name, readings, from, to, verdict, unit);
  const zones = [from, to].flatMap((limit) => (limit === undefined || guard <= 0 ? [] : [[x(limit - guard), x(limit + guard)] as const]));
  return (
    <figure className="m-0">
      <svg viewBox={`0 0 ${WIDTH} 92`} role="img" aria-label={words}>
        <defs>
          <pattern id="unsure" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" y1="0" x2="0" y2="5" stroke="var(--unsure)" strokeWidth="1.6" />
          </pattern>
        </defs>
        {x.ticks(40).map((tick) => (
          <line key={tick} x1={x(tick)} x2={x(tick)} y1={RULE_Y - 6} y2={RULE_Y} stroke="var(--soft)" strokeWidth="1" />
        ))}
        {x.ticks(4).map((tick) => (
          <g key={tick}>
            <line x1={x(tick)} x2={x(tick)} y1={RULE_Y - 14} y2={RULE_Y} stroke="var(--soft)" strokeWidth="1.4" />
            <text x={x(tick)} y={15} textAnchor="middle" fontSize="17" style={{ fill: 'var(--soft)' }}>
              {write(tick)}
            </text>
          </g>
        ))}
        <rect
          x={windowFrom}
          y={BAND_Y}
          width={Math.max(1, windowTo - windowFrom)}
          height={BAND_H}
          fill="var(--steel-2)"
          stroke="var(--steel)"
        />
        {zones.map(([start, end]) => (
          <rect
            key={start}
            x={Math.max(LEFT, start)}
            y={BAND_Y}
            width={Math.max(0, Math.min(RIGHT, end) - Math.max(LEFT, start))}
            height={BAND_H}
            fill="url(#unsure)"
          />
        ))}
        {[from, to].map((limit) =>
          limit === undefined ? null : (
            <text key={limit} x={x(limit)} y={BAND_Y + BAND_H + 21} textAnchor="middle" fontSize="19" style={{ fill: 'var(--steel)' }}>
              {write(limit)}
            </text>
          ),
        )}
        {before.map((reading, index) => (
          <circle
            key={`before ${index}`}
            cx={x(reading)}
            cy={BAND_Y + BAND_H + 6}
            r="3.4"
            fill="var(--sheet)"
            stroke="var(--soft)"
            strokeWidth="1.6"
          />
        ))}
        {readings.map((reading, index) => (
          // Two pulls may read the same, so the place in the list tells them apart.
          <line key={index} x1={x(reading)} x2={x(reading)} y1={RULE_Y - 4} y2={BAND_Y + BAND_H + 4} stroke="var(--ink)" strokeWidth="3" />
        ))}
      </svg>
      {verdict ? (
        <figcaption className={`fig v-${verdict}`}>
          <VerdictShape verdict={verdict} /> {verdict}
        </figcaption>
      ) : null}
    </figure>
  );
}

/** In: a full square. Out: a cross. Unsure: a half square. The word stands beside it. */
export function VerdictShape({ verdict }: { readonly verdict: string }): ReactElement {
  return (
    <svg
      viewBox="0 0 14 14"
      width="14"
      height="14"
      aria-hidden="true"
      style={{ display: 'inline-block', width: 14, verticalAlign: '-1px' }}
    >
      {verdict === 'in' ? <rect x="1" y="1" width="12" height="12" fill="currentColor" /> : null}
      {verdict === 'out' ? <path d="M2 2l10 10M12 2L2 12" stroke="currentColor" strokeWidth="3" /> : null}
      {verdict === 'unsure' ? <path d="M1 1h12v12H1zM1 13L13 1v12z" fill="currentColor" fillRule="evenodd" stroke="currentColor" /> : null}
    </svg>
  );
}

function extent(readings: readonly number[], from: number | undefined, to: number | undefined, guard: number): [number, number] {
  const figures = [...readings, ...[from, to].filter((limit) => limit !== undefined)];
  const low = Math.min(...figures);
  const high = Math.max(...figures);
  const margin = Math.max((high - low) * 0.2, guard * 1.5, Math.abs(high) * 1e-5, 1e-3);
  return [low - margin, high + margin];
}

function describe(
  name: string,
  readings: readonly number[],
  from: number | undefined,
  to: number | undefined,
  verdict: string | undefined,
  unit: string,
): string {
  const window = [from === undefined ? '' : `from ${from}`, to === undefined ? '' : `to ${to}`].filter(Boolean).join(' ');
  return `${name}: limit ${window} ${unit}; readings ${readings.join(', ') || 'none yet'} ${unit}${verdict ? `; ${verdict}` : ''}`;
}
