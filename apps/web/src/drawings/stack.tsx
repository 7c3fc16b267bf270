import type { Drawing } from '@jubb/core';
import type { ReactElement } from 'react';

type StackProps = Omit<Extract<Drawing, { kind: 'stack' }>, 'kind'> & { readonly name: string };

const WIDTH = 520;
const HEIGHT = 220;
const LEFT = 96;
const TOP = 66;
const BOTTOM = 132;
const MOST_WIDE = 46;

/** Half of the rings of a cylinder in section, the pressure from the left, each with its lips where they open. */
export function Stack({ name, rings }: StackProps): ReactElement {
  const wide = Math.min(MOST_WIDE, (WIDTH - LEFT - 30) / Math.max(1, rings.length));
  const middle = (TOP + BOTTOM) / 2;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`${name}: from the pressure ${rings.map((ring) => `${ring.name}${ring.opens === undefined ? '' : ring.opens === 'left' ? ', open to the pressure' : ', open away from it'}`).join('; ')}`}
    >
      <path d={`M12,${TOP - 22}H${WIDTH - 12}V${TOP - 6}H12Z`} fill="var(--rule)" stroke="var(--ink)" strokeWidth="2" />
      <path d={`M12,${BOTTOM + 6}H${WIDTH - 12}V${BOTTOM + 34}H12Z`} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
      <path d={`M20,${middle}H74M74,${middle}l-12,-7v14Z`} stroke="var(--steel)" strokeWidth="3" fill="var(--steel)" />
      <text x="20" y={middle - 14} fontSize="15">
        pressure
      </text>
      {rings.map((ring, at) => {
        const x = LEFT + at * wide;
        const [from, to] = [x + 2, x + wide - 2];
        return (
          <g key={at} stroke="var(--ink)" strokeWidth="2" strokeLinejoin="round">
            <path
              d={shapeOf(ring, from, to)}
              fill={ring.shape === 'guide' || ring.shape === 'back-up' ? 'var(--brass-2)' : 'var(--steel-2)'}
            />
            <text x={(from + to) / 2} y={BOTTOM + 26} fontSize="15" textAnchor="middle" stroke="none" fill="var(--ink)">
              {at + 1}
            </text>
            {ring.gapAt === undefined ? null : (
              <text x={(from + to) / 2} y={TOP - 28} fontSize="13" textAnchor="middle" stroke="none" fill="var(--ink)">
                {Math.round(ring.gapAt)}°
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}

function shapeOf({ shape, opens }: StackProps['rings'][number], from: number, to: number): string {
  const middle = (TOP + BOTTOM) / 2;
  const wide = to - from;
  switch (shape) {
    case 'guide':
      // Cut at 45°.
      return `M${from},${TOP}H${to}V${BOTTOM}H${from}ZM${from},${BOTTOM - 8}L${to},${TOP + 8}`;
    case 'ring':
      return `M${from},${middle}a${wide / 2},${wide / 2} 0 1 0 ${wide},0a${wide / 2},${wide / 2} 0 1 0 ${-wide},0Z`;
    case 'back-up':
      return `M${from},${TOP + 10}H${to}V${BOTTOM}H${from}Z`;
    case 'spreader':
      return `M${from},${TOP}L${to - 4},${middle}L${from},${BOTTOM}Z`;
    case 'support':
      return `M${from},${TOP}L${from + wide * 0.4},${middle}L${from},${BOTTOM}H${to}V${TOP}Z`;
    default: {
      const [mouth, heel] = opens === 'right' ? [to, from] : [from, to];
      const inwards = mouth + (heel - mouth) * 0.55;
      return shape === 'scraper'
        ? `M${heel},${TOP}H${mouth}L${inwards},${middle}L${mouth},${BOTTOM}L${heel},${BOTTOM - 10}Z`
        : `M${mouth},${TOP}H${heel}V${BOTTOM}H${mouth}L${inwards},${middle}Z`;
    }
  }
}
