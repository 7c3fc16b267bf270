import { formatQuantity, type Drawing } from '@jubb/core';
import type { ReactElement } from 'react';

type GlandProps = Omit<Extract<Drawing, { kind: 'gland' }>, 'kind'> & { readonly name: string };

const WIDTH = 440;
const HEIGHT = 210;
const ROOM = { left: 90, right: 350, top: 52, bottom: 158 };

/** Half axes of a ring of that section in a room of that height: flattened it keeps its area. */
export function flattened(section: number, height: number): { readonly across: number; readonly up: number } {
  const up = Math.min(section, height) / 2;
  return { up, across: (section / 2) ** 2 / up };
}

/** A ring in its groove, in section and to scale: dashed as it would be round, filled as the room makes it. */
export function Gland({ name, gland, section, height, width }: GlandProps): ReactElement {
  const scale = Math.min((ROOM.right - ROOM.left) / width, (ROOM.bottom - ROOM.top) / Math.max(height, section));
  const [w, h] = [width * scale, height * scale];
  const middle = (ROOM.left + ROOM.right) / 2;
  const floor = ROOM.bottom;
  const [left, right, roof] = [middle - w / 2, middle + w / 2, floor - h];
  const { across, up } = flattened(section, height);
  const isRod = gland === 'rod';
  // The groove is cut from below on a piston or in a face, from above round a rod.
  const groove = `M12,${roof}H${left}V${floor}H${right}V${roof}H${WIDTH - 12}V${HEIGHT - 12}H12Z`;
  const mate = `M12,${roof}H${WIDTH - 12}V12H12Z`;
  const turned = isRod ? `translate(0 ${HEIGHT}) scale(1 -1)` : undefined;
  const at = (y: number): number => (isRod ? HEIGHT - y : y);
  const write = (length: number): string => formatQuantity(length, 'length');
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`${name}: section ${write(section)} in a room ${write(height)} high and ${write(width)} wide`}
    >
      <g transform={turned} stroke="var(--ink)" strokeWidth="2">
        <path d={mate} fill="var(--sheet)" />
        <path d={groove} fill="var(--rule)" />
        <ellipse cx={middle} cy={floor - up * scale} rx={across * scale} ry={up * scale} fill="var(--steel-2)" />
        <circle
          cx={middle}
          cy={floor - (section * scale) / 2}
          r={(section * scale) / 2}
          fill="none"
          strokeDasharray="5 4"
          strokeWidth="1.6"
        />
      </g>
      <text x={right + 10} y={at((roof + floor) / 2) + 5} fontSize="15">
        {write(height)}
      </text>
      <text x={middle} y={at(floor + 26) + 5} textAnchor="middle" fontSize="15">
        {write(width)}
      </text>
      <text x={left - 10} y={at((roof + floor) / 2) + 5} textAnchor="end" fontSize="15">
        ⌀ {write(section)}
      </text>
    </svg>
  );
}
