import { dropZeros } from '@jubb/core';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import type { ReactElement } from 'react';

interface ChartProps {
  readonly name: string;
  readonly x: string;
  readonly y: string;
  readonly lines: readonly { readonly name: string; readonly points: readonly (readonly [number, number])[]; readonly dots?: boolean }[];
  readonly levels: readonly { readonly name: string; readonly at: number }[];
}

const WIDTH = 460;
const HEIGHT = 272;
const LEFT = 56;
const RIGHT = WIDTH - 74;
const TOP = 12;
/** Room above the figures for the names of the lines, where there are several. */
const NAMES = 20;
const BOTTOM = HEIGHT - 40;
/** Lines are told apart by their dashes and their names, not by colour. */
const DASHES = ['none', '7 4', '2 4', '10 3 2 3'];

/** Figures over figures: one or more lines with their names at the end, levels as thin rules. */
export function Chart({ name, x: xName, y: yName, lines, levels }: ChartProps): ReactElement {
  const top = lines.length > 1 ? TOP + NAMES : TOP;
  const points = lines.flatMap(({ points: own }) => own);
  const x = scaleLinear()
    .domain(spread(points.map(([at]) => at)))
    .range([LEFT, RIGHT])
    .nice();
  const y = scaleLinear()
    .domain(spread([...points.map(([, figure]) => figure), ...levels.map(({ at }) => at)]))
    .range([BOTTOM, top])
    .nice();
  const path = line<readonly [number, number]>(
    ([at]) => x(at),
    ([, figure]) => y(figure),
  );
  const write = (figure: number): string => dropZeros(figure.toFixed(4));
  const words = `${name}: ${lines.map((one) => `${one.name}: ${one.points.map(([at, figure]) => `${write(at)} ${xName} ${write(figure)}`).join(', ')}`).join('; ')}. ${levels.map((level) => `${level.name} ${write(level.at)}`).join(', ')}`;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={words}>
      {y.ticks(5).map((tick) => (
        <g key={tick}>
          <line x1={LEFT - 6} x2={LEFT} y1={y(tick)} y2={y(tick)} stroke="var(--soft)" strokeWidth="1.4" />
          <text x={LEFT - 9} y={y(tick) + 4} textAnchor="end" fontSize="13" style={{ fill: 'var(--soft)' }}>
            {write(tick)}
          </text>
        </g>
      ))}
      {x.ticks(6).map((tick) => (
        <g key={tick}>
          <line x1={x(tick)} x2={x(tick)} y1={BOTTOM} y2={BOTTOM + 6} stroke="var(--soft)" strokeWidth="1.4" />
          <text x={x(tick)} y={BOTTOM + 19} textAnchor="middle" fontSize="13" style={{ fill: 'var(--soft)' }}>
            {write(tick)}
          </text>
        </g>
      ))}
      <path d={`M${LEFT},${top}V${BOTTOM}H${RIGHT}`} fill="none" stroke="var(--ink)" strokeWidth="2" />
      <text x={RIGHT} y={HEIGHT - 4} textAnchor="end" fontSize="13">
        {xName}
      </text>
      <text x={LEFT + 6} y={top + 6} fontSize="13">
        {yName}
      </text>
      {apart(levels, ({ at }) => y(at)).map(({ of: level, at }) => (
        <g key={level.name + level.at}>
          <line x1={LEFT} x2={RIGHT} y1={y(level.at)} y2={y(level.at)} stroke="var(--steel)" strokeWidth="1.4" strokeDasharray="1 3" />
          <text x={RIGHT + 5} y={at + 4} fontSize="13" style={{ fill: 'var(--steel)' }}>
            {level.name} {write(Number(level.at.toPrecision(5)))}
          </text>
        </g>
      ))}
      {lines.map(({ name: own, points: of, dots }, index) => (
        <g key={own}>
          {dots ? null : (
            <path d={path(of) ?? ''} fill="none" stroke="var(--ink)" strokeWidth="2" strokeDasharray={DASHES[index % DASHES.length]} />
          )}
          {dots || of.length <= 40 ? of.map(([at, figure], place) => <Dot key={place} kind={index} x={x(at)} y={y(figure)} />) : null}
        </g>
      ))}
      {lines.length > 1
        ? lines.map(({ name: own }, index) => (
            <g key={own} transform={`translate(${LEFT + 14 + index * 96},${TOP + 3})`}>
              <Dot kind={index} x={0} y={-4} />
              <text x={9} fontSize="13">
                {own}
              </text>
            </g>
          ))
        : null}
    </svg>
  );
}

function Dot({ kind, x, y }: { readonly kind: number; readonly x: number; readonly y: number }): ReactElement {
  switch (kind % 3) {
    case 0:
      return <circle cx={x} cy={y} r="3.6" fill="var(--ink)" />;
    case 1:
      return <rect x={x - 3.4} y={y - 3.4} width="6.8" height="6.8" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.8" />;
    default:
      return <path d={`M${x},${y - 4.6}l4.4,7.6h-8.8z`} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.8" />;
  }
}

function spread(figures: readonly number[]): [number, number] {
  const low = Math.min(...figures);
  const high = Math.max(...figures);
  return low === high ? [low - 1, high + 1] : [low, high];
}

/** Labels pushed apart so that none lies on another. */
function apart<T>(all: readonly T[], y: (one: T) => number): readonly { readonly of: T; readonly at: number }[] {
  const sorted = [...all].sort((one, other) => y(one) - y(other));
  let last = Number.NEGATIVE_INFINITY;
  return sorted.map((of) => {
    last = Math.max(y(of), last + 15);
    return { of, at: last };
  });
}
