import { formatQuantity } from '@jubb/core';
import { curveCardinalClosed, lineRadial } from 'd3-shape';
import type { ReactElement } from 'react';

interface RoundProps {
  readonly name: string;
  /** At equal angles, the first at the top, going clockwise. */
  readonly readings: readonly number[];
  readonly highAt: number;
  readonly eccentricity: number;
}

const SIZE = 300;
const MEAN = 88;
const MOST = 34;

/** Readings round one turn, much enlarged, about their mean circle, with the high spot marked. */
export function Round({ name, readings, highAt, eccentricity }: RoundProps): ReactElement {
  const mean = readings.reduce((sum, reading) => sum + reading, 0) / readings.length;
  const most = Math.max(...readings.map((reading) => Math.abs(reading - mean)), 1e-9);
  const angle = (index: number): number => (2 * Math.PI * index) / readings.length;
  const radius = (reading: number): number => MEAN + ((reading - mean) / most) * MOST;
  const path = lineRadial<number>()
    .angle((_, index) => angle(index))
    .radius(radius)
    .curve(curveCardinalClosed.tension(0.3));
  const high = (highAt * Math.PI) / 180;
  return (
    <svg
      viewBox={`${-SIZE / 2} ${-SIZE / 2} ${SIZE} ${SIZE}`}
      role="img"
      aria-label={`${name}: high spot at ${Math.round(highAt)}°, off centre by ${formatQuantity(eccentricity, 'length')}; readings ${readings.join(', ')} mm`}
    >
      <circle r={MEAN} fill="none" stroke="var(--soft)" strokeDasharray="2 4" />
      <path d={path([...readings]) ?? ''} fill="var(--steel-2)" stroke="var(--ink)" strokeWidth="2" />
      {readings.map((reading, index) => (
        <circle
          key={index}
          cx={radius(reading) * Math.sin(angle(index))}
          cy={-radius(reading) * Math.cos(angle(index))}
          r="3.4"
          fill="var(--ink)"
        />
      ))}
      {[0, 90, 180, 270].map((at) => (
        <text
          key={at}
          x={142 * Math.sin((at * Math.PI) / 180)}
          y={5 - 138 * Math.cos((at * Math.PI) / 180)}
          textAnchor="middle"
          fontSize="13"
          style={{ fill: 'var(--soft)' }}
        >
          {at}°
        </text>
      ))}
      <line x1={0} y1={0} x2={126 * Math.sin(high)} y2={-126 * Math.cos(high)} stroke="var(--brass)" strokeWidth="2.5" />
      <circle cx={126 * Math.sin(high)} cy={-126 * Math.cos(high)} r="5" fill="var(--brass)" />
      <text x={0} y={22} textAnchor="middle" fontSize="15">
        high {Math.round(highAt)}°
      </text>
    </svg>
  );
}
