import type { Routing } from '@jubb/sheet';
import { curveCatmullRom, line } from 'd3-shape';
import type { ReactElement } from 'react';

const DASHES = ['', '14 8', '3 7', '20 6 4 6', '8 4'];

/** How belts, hoses and leads run: each with its own stroke, its name at its end. */
export function RoutingPicture({ routing }: { readonly routing: Routing }): ReactElement {
  const path = line<{ x: number; y: number }>(
    ({ x }) => x,
    ({ y }) => y,
  ).curve(curveCatmullRom.alpha(0.5));
  return (
    <figure className="routing">
      <svg viewBox="0 0 1000 1000" role="img" aria-label={`${routing.name}: ${routing.lines.map(({ label }) => label).join(', ')}`}>
        <rect x="2" y="2" width="996" height="996" fill="none" stroke="var(--rule)" strokeWidth="4" />
        {routing.lines.map(({ label, points }, index) => {
          const end = points.at(-1) ?? { x: 0, y: 0 };
          const leftwards = end.x > 500;
          return (
            <g key={label}>
              <path
                d={path(points) ?? ''}
                fill="none"
                stroke="var(--ink)"
                strokeWidth="8"
                strokeDasharray={DASHES[index % DASHES.length]}
              />
              <circle cx={end.x} cy={end.y} r="14" fill="var(--steel)" />
              <text x={end.x + (leftwards ? -24 : 24)} y={end.y - 20} textAnchor={leftwards ? 'end' : 'start'} fontSize="52">
                {label}
              </text>
            </g>
          );
        })}
      </svg>
      <figcaption className="soft">{routing.name}</figcaption>
    </figure>
  );
}
