import { arc } from 'd3-shape';
import type { ReactElement } from 'react';
import { hexagon } from './joint-plate.tsx';

interface CastleNutProps {
  readonly slots: number;
  /** Pin-hole openings in degrees, counted against the tightening direction. */
  readonly openings: readonly number[];
  /** The turn to make; plus tightens, which is clockwise for a right-hand thread. */
  readonly angle: number;
}

const SIZE = 280;
const CENTRE = SIZE / 2;

/** The nut from its end: slots, the holes behind them, and the turn to the next slot. */
export function CastleNut({ slots, openings, angle }: CastleNutProps): ReactElement {
  const shown = Math.max(-340, Math.min(340, angle));
  const sweep = arc()({ innerRadius: 116, outerRadius: 124, startAngle: 0, endAngle: (shown * Math.PI) / 180 }) ?? '';
  const tip = polar(shown, 120);
  const turn = shown >= 0 ? 1 : -1;
  const words = `Castle nut, ${slots} slots, ${openings.length} pin-hole openings; ${angle === 0 ? 'leave it' : `${angle > 0 ? 'tighten' : 'loosen'} ${Math.abs(angle)}°`}`;
  return (
    <svg viewBox={`0 0 ${SIZE} ${SIZE}`} role="img" aria-label={words}>
      <polygon
        points={hexagon(CENTRE, CENTRE, 100)}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth="2.5"
        transform={`rotate(30 ${CENTRE} ${CENTRE})`}
      />
      <circle cx={CENTRE} cy={CENTRE} r="52" fill="var(--ground)" stroke="var(--ink)" strokeWidth="2.5" />
      {Array.from({ length: slots }, (_, slot) => (
        <rect
          key={slot}
          x={CENTRE - 9}
          y={CENTRE - 84}
          width="18"
          height="28"
          fill="var(--ground)"
          stroke="var(--ink)"
          strokeWidth="2"
          transform={`rotate(${(slot * 360) / slots} ${CENTRE} ${CENTRE})`}
        />
      ))}
      {openings.map((opening) => (
        <rect
          key={opening}
          x={CENTRE - 5}
          y={CENTRE - 51}
          width="10"
          height="20"
          fill="var(--brass)"
          transform={`rotate(${-opening} ${CENTRE} ${CENTRE})`}
        />
      ))}
      <text x={CENTRE} y={CENTRE + 6} textAnchor="middle" fontSize="17" style={{ fill: 'var(--brass)' }}>
        holes
      </text>
      {angle === 0 ? null : (
        <>
          <path d={sweep} transform={`translate(${CENTRE} ${CENTRE})`} fill="var(--steel)" />
          <path
            d="M0 -13L20 0L0 13z"
            fill="var(--steel)"
            transform={`translate(${tip.x} ${tip.y}) rotate(${shown + (turn > 0 ? 0 : 180)})`}
          />
        </>
      )}
    </svg>
  );
}

function polar(angle: number, radius: number): { x: number; y: number } {
  const radians = (angle * Math.PI) / 180;
  return { x: CENTRE + radius * Math.sin(radians), y: CENTRE - radius * Math.cos(radians) };
}
