import { dropZeros } from '@jubb/core';
import { scaleLinear } from 'd3-scale';
import type { ReactElement } from 'react';

interface FitProps {
  readonly name: string;
  readonly bars: readonly { readonly name: string; readonly from: number; readonly to: number; readonly at?: number | undefined }[];
}

const WIDTH = 400;
const TOP = 24;
const BOTTOM = 200;
const LEFT = 60;

/** Allowed sizes of hole and shaft as bars over and under the nominal size, in micrometres. */
export function Fit({ name, bars }: FitProps): ReactElement {
  const ends = [0, ...bars.flatMap(({ from, to, at = from }) => [from, to, at])];
  const y = scaleLinear()
    .domain([Math.min(...ends) - 4, Math.max(...ends) + 4])
    .range([BOTTOM, TOP]);
  const step = (WIDTH - LEFT - 20) / bars.length;
  const write = (micron: number): string => `${micron > 0 ? '+' : micron < 0 ? '−' : ''}${dropZeros(Math.abs(micron).toFixed(1))}`;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 240`}
      role="img"
      aria-label={`${name}: ${bars.map((bar) => `${bar.name} from ${write(bar.from)} to ${write(bar.to)} micrometres`).join('; ')}`}
    >
      <path d={`M${LEFT - 14},${y(0)}H${WIDTH}`} stroke="var(--ink)" strokeWidth="2" />
      <text x={LEFT - 18} y={y(0) + 5} textAnchor="end" fontSize="14">
        0 µm
      </text>
      {bars.map((bar, place) => {
        const x = LEFT + place * step + 0.2 * step;
        const isHole = place === 0;
        return (
          <g key={bar.name}>
            <rect
              x={x}
              y={y(bar.to)}
              width={0.4 * step}
              height={Math.max(2, y(bar.from) - y(bar.to))}
              fill={isHole ? 'var(--sheet)' : 'var(--steel-2)'}
              stroke="var(--ink)"
              strokeWidth="2"
            />
            <text x={x + 0.4 * step + 6} y={y(bar.to) + 4} fontSize="14">
              {write(bar.to)}
            </text>
            {bar.from === 0 ? null : (
              <text x={x + 0.4 * step + 6} y={y(bar.from) + 6} fontSize="14">
                {write(bar.from)}
              </text>
            )}
            {bar.at === undefined ? null : <path d={`M${x - 6},${y(bar.at)}H${x + 0.4 * step}`} stroke="var(--brass)" strokeWidth="3" />}
            <text x={x + 0.2 * step} y={228} textAnchor="middle" fontSize="15">
              {bar.name}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
