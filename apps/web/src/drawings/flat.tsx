import { formatQuantity } from '@jubb/core';
import type { ReactElement } from 'react';
import { boxOf, flatPath, type FlatDrawing } from './flat-path.ts';

type FlatProps = Omit<FlatDrawing, 'kind'> & { readonly name: string; readonly isTrue?: boolean };

/** Round the drawing, mm. */
const ROUND = 6;

/** A flat part from above, holes numbered as they were measured; at true size its line is thin enough to cut along. */
export function Flat({ name, outlines, holes, along, isTrue = false }: FlatProps): ReactElement {
  const { x, y, wide, high } = boxOf({ kind: 'flat', outlines, holes, along }, ROUND);
  const line = isTrue ? 0.25 : Math.max(wide, high) / 220;
  const letter = Math.max(3.2, Math.max(wide, high) / 26);
  const write = (length: number): string => formatQuantity(length, 'length');
  return (
    <svg
      xmlns="http://www.w3.org/2000/svg"
      viewBox={`${x} ${y} ${wide} ${high}`}
      {...(isTrue ? { width: `${wide}mm`, height: `${high}mm` } : {})}
      role="img"
      aria-label={`${name}: ${holes.length} holes, ${write(wide - 2 * ROUND)} × ${write(high - 2 * ROUND)}`}
    >
      <path
        d={outlines.map(flatPath).join('')}
        fillRule="evenodd"
        fill={isTrue ? 'none' : 'var(--rule)'}
        stroke={isTrue ? 'black' : 'var(--ink)'}
        strokeWidth={line}
      />
      {along?.lines.map((one, at) => (
        <path
          key={at}
          d={flatPath(one)}
          // A ring takes the place of the line that runs into it.
          fill={at === 0 || isTrue ? 'none' : 'var(--ground)'}
          stroke={isTrue ? 'black' : 'var(--brass)'}
          strokeWidth={isTrue ? line : Math.max(along.wide, line)}
          strokeLinejoin="round"
        />
      ))}
      {holes.map((hole, at) => (
        <g key={at}>
          <circle
            cx={hole.x}
            cy={-hole.y}
            r={hole.d / 2}
            fill={isTrue ? 'none' : 'var(--sheet)'}
            stroke={isTrue ? 'black' : 'var(--ink)'}
            strokeWidth={line}
          />
          {isTrue ? (
            <path d={`M${hole.x - 1},${-hole.y}h2M${hole.x},${-hole.y - 1}v2`} stroke="black" strokeWidth={line} />
          ) : (
            <text
              x={hole.x}
              y={-hole.y}
              fontSize={Math.min(letter, Math.max(hole.d * 0.7, letter * 0.6))}
              textAnchor="middle"
              dominantBaseline="central"
            >
              {at + 1}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}
