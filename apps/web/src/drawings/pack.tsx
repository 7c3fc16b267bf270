import { formatQuantity } from '@jubb/core';
import { scaleLinear } from 'd3-scale';
import type { ReactElement } from 'react';

interface PackProps {
  readonly name: string;
  readonly layers: readonly number[];
  readonly wanted: number;
}

const LEFT = 40;
const RIGHT = 400;
const TOP = 26;
const BOTTOM = 116;

/** Shims as they lie between two shoulders, to scale along, with what was wanted marked. */
export function Pack({ name, layers, wanted }: PackProps): ReactElement {
  const sum = layers.reduce((total, one) => total + one, 0);
  const x = scaleLinear()
    .domain([0, Math.max(sum, wanted) * 1.04 || 1])
    .range([LEFT, RIGHT]);
  const starts = layers.map((_, place) => layers.slice(0, place).reduce((total, one) => total + one, 0));
  const words = `${name}: ${layers.length === 0 ? 'no shim' : layers.map((one) => formatQuantity(one, 'length')).join(', ')}; ${formatQuantity(sum, 'length')} in all, ${formatQuantity(wanted, 'length')} wanted`;
  return (
    <svg viewBox="0 0 440 160" role="img" aria-label={words}>
      <path d={`M${LEFT},${TOP - 8}V${BOTTOM + 8}H12V${TOP - 8}Z`} fill="var(--rule)" stroke="var(--ink)" strokeWidth="2" />
      {layers.map((one, place) => {
        const width = x(one) - x(0);
        return (
          <g key={place}>
            <rect
              x={x(starts[place]!)}
              y={TOP}
              width={width}
              height={BOTTOM - TOP}
              fill={place % 2 === 0 ? 'var(--steel-2)' : 'var(--sheet)'}
              stroke="var(--ink)"
              strokeWidth="1.6"
            />
            {width > 44 ? (
              <text x={x(starts[place]!) + width / 2} y={(TOP + BOTTOM) / 2 + 7} textAnchor="middle" fontSize="20">
                {formatQuantity(one, 'length').replace(' mm', '')}
              </text>
            ) : null}
          </g>
        );
      })}
      <path d={`M${x(wanted)},${TOP - 14}V${BOTTOM + 14}`} stroke="var(--steel)" strokeWidth="2.5" strokeDasharray="5 3" />
      <text
        x={x(wanted)}
        y={BOTTOM + 36}
        textAnchor={x(wanted) > (LEFT + RIGHT) / 2 ? 'end' : 'start'}
        fontSize="20"
        style={{ fill: 'var(--steel)' }}
      >
        wanted {formatQuantity(wanted, 'length')}
      </text>
    </svg>
  );
}
