import { formatQuantity } from '@jubb/core';
import { scaleLinear } from 'd3-scale';
import type { ReactElement } from 'react';

interface FaceProps {
  readonly name: string;
  readonly points: readonly { readonly x: number; readonly y: number; readonly off: number }[];
}

const WIDTH = 460;
const HEIGHT = 260;

/** A face from above: high points as solid discs, low ones as rings, by how far they are off. */
export function Face({ name, points }: FaceProps): ReactElement {
  const span = (of: (point: FaceProps['points'][number]) => number): [number, number] => {
    const figures = points.map(of);
    return [Math.min(...figures), Math.max(...figures)];
  };
  const x = scaleLinear()
    .domain(span((point) => point.x))
    .range([60, WIDTH - 60]);
  const y = scaleLinear()
    .domain(span((point) => point.y))
    .range([HEIGHT - 54, 46]);
  const most = Math.max(...points.map(({ off }) => Math.abs(off)), 1e-9);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`${name}: ${points.map((point) => `${formatQuantity(point.off, 'length')} at ${point.x}, ${point.y}`).join('; ')}`}
    >
      <rect x="22" y="14" width={WIDTH - 44} height={HEIGHT - 34} fill="none" stroke="var(--ink)" strokeWidth="2" />
      {points.map((point, index) => {
        const radius = 4 + 13 * (Math.abs(point.off) / most);
        return (
          <g key={index}>
            <circle
              cx={x(point.x)}
              cy={y(point.y)}
              r={radius}
              fill={point.off >= 0 ? 'var(--ink)' : 'var(--sheet)'}
              stroke="var(--ink)"
              strokeWidth="2"
            />
            <text x={x(point.x)} y={y(point.y) + radius + 14} textAnchor="middle" fontSize="13">
              {point.off >= 0 ? '+' : '−'}
              {Math.abs(point.off * 1000).toFixed(0)} µm
            </text>
          </g>
        );
      })}
    </svg>
  );
}
