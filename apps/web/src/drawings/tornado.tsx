import { scaleLinear } from 'd3-scale';
import type { ReactElement } from 'react';

interface TornadoProps {
  readonly name: string;
  /** The lead as things stand. */
  readonly base: number;
  readonly bars: readonly { readonly name: string; readonly low: number; readonly high: number }[];
}

const WIDTH = 560;
const LEFT = 210;
const RIGHT = WIDTH - 50;
const BAR = 30;

/** What an answer hangs on: each bar the lead with one figure turned down (outlined) and up (solid). Left of 0 another answer wins. */
export function Tornado({ name, base, bars }: TornadoProps): ReactElement {
  const figures = [0, base, ...bars.flatMap(({ low, high }) => [low, high])];
  const x = scaleLinear()
    .domain([Math.min(...figures), Math.max(...figures)])
    .nice()
    .range([LEFT, RIGHT]);
  const height = 44 + bars.length * BAR;
  const write = (money: number): string => money.toFixed(0);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      role="img"
      aria-label={`${name}: lead ${write(base)}; ${bars.map((bar) => `${bar.name}: ${write(bar.low)} when less, ${write(bar.high)} when more`).join('; ')}`}
    >
      <rect x={LEFT} y="24" width={Math.max(0, x(0) - LEFT)} height={height - 30} fill="var(--brass-2)" />
      {x.ticks(6).map((tick) => (
        <g key={tick}>
          <line x1={x(tick)} x2={x(tick)} y1="18" y2="24" stroke="var(--soft)" />
          <text x={x(tick)} y="13" textAnchor="middle" fontSize="13" style={{ fill: 'var(--soft)' }}>
            {write(tick)}
          </text>
        </g>
      ))}
      {bars.map((bar, row) => {
        const y = 30 + row * BAR;
        const side = (to: number, solid: boolean): ReactElement => (
          <rect
            x={Math.min(x(base), x(to))}
            y={y}
            width={Math.max(1, Math.abs(x(to) - x(base)))}
            height={BAR - 12}
            fill={solid ? 'var(--ink)' : 'var(--sheet)'}
            stroke="var(--ink)"
            strokeWidth="1.6"
          />
        );
        return (
          <g key={bar.name}>
            <text x={LEFT - 10} y={y + 14} textAnchor="end" fontSize="14">
              {bar.name}
            </text>
            {side(bar.low, false)}
            {side(bar.high, true)}
          </g>
        );
      })}
      <line x1={x(0)} x2={x(0)} y1="20" y2={height - 6} stroke="var(--brass)" strokeWidth="2.5" />
      <line x1={x(base)} x2={x(base)} y1="24" y2={height - 6} stroke="var(--steel)" strokeWidth="1.6" strokeDasharray="4 3" />
    </svg>
  );
}
