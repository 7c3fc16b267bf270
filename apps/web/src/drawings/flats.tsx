import type { ReactElement } from 'react';
import { hexagon } from './joint-plate.tsx';

interface FlatsProps {
  readonly angle: number;
  /** 1 tightens clockwise, -1 counter-clockwise. */
  readonly turn: 1 | -1;
}

const SIZE = 260;
const MIDDLE = SIZE / 2;
const HEAD = 74;
const ARC = 104;
const FLAT = 60;

/** A hexagon head from above with a paint mark on it and on its seat: where the mark comes to by the angle. */
export function Flats({ angle, turn }: FlatsProps): ReactElement {
  const from = { x: MIDDLE, y: MIDDLE - ARC };
  const at = (degrees: number, radius: number): { x: number; y: number } => ({
    x: MIDDLE + radius * Math.sin((turn * degrees * Math.PI) / 180),
    y: MIDDLE - radius * Math.cos((turn * degrees * Math.PI) / 180),
  });
  const shown = Math.min(angle, 350);
  const to = at(shown, ARC);
  const [in1, out1] = [at(0, HEAD + 6), at(0, ARC + 18)];
  const [in2, out2] = [at(angle, 20), at(angle, HEAD)];
  const sweep = turn === 1 ? 1 : 0;
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      role="img"
      aria-label={`Turned on ${angle}°, ${flatsWords(angle)}: the paint mark of the head moves from its mate on the seat`}
    >
      <polygon points={hexagon(MIDDLE, MIDDLE, HEAD)} fill="none" stroke="var(--rule)" strokeWidth="2" />
      <polygon
        points={hexagon(MIDDLE, MIDDLE, HEAD)}
        transform={`rotate(${turn * angle} ${MIDDLE} ${MIDDLE})`}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth="3"
      />
      <line x1={in1.x} y1={in1.y} x2={out1.x} y2={out1.y} stroke="var(--brass)" strokeWidth="8" />
      <line x1={in2.x} y1={in2.y} x2={out2.x} y2={out2.y} stroke="var(--brass)" strokeWidth="8" />
      <path
        d={`M${from.x} ${from.y}A${ARC} ${ARC} 0 ${shown > 180 ? 1 : 0} ${sweep} ${to.x} ${to.y}`}
        fill="none"
        stroke="var(--steel)"
        strokeWidth="5"
      />
      <circle cx={to.x} cy={to.y} r="8" fill="var(--steel)" />
      <text x={MIDDLE} y={SIZE - 6} textAnchor="middle" fontSize="18">
        {flatsWords(angle)}
      </text>
    </svg>
  );
}

/** An angle in flats of the hexagon, to the quarter: "1 flat", "1½ flats". */
export function flatsWords(angle: number): string {
  const quarters = Math.round((angle / FLAT) * 4);
  const part = ['', '¼', '½', '¾'][quarters % 4] ?? '';
  const whole = Math.floor(quarters / 4);
  const isExact = Math.abs(quarters * (FLAT / 4) - angle) < 0.5;
  const words = `${whole > 0 || part === '' ? whole : ''}${part} ${quarters <= 4 ? 'flat' : 'flats'}`;
  return isExact ? words : `some ${words}`;
}
