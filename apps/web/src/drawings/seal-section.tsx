import { formatQuantity, type Drawing } from '@jubb/core';
import { scaleLinear } from 'd3-scale';
import type { ReactElement } from 'react';

type SealSectionProps = Omit<Extract<Drawing, { kind: 'seal-section' }>, 'kind'> & { readonly name: string };

const WIDTH = 480;
const HEIGHT = 250;
const LEFT = 56;
const RIGHT = 440;
const BORE = 84;
const SHAFT = 176;
/** A groove that is drawn to scale is not seen. */
const DEEPEST = 12;

/** A lip seal in its bore over a worn shaft, in section; along the shaft to scale, the depth of the track not. */
export function SealSection({ name, bore, width, lip, inset, track, drain, sleeve }: SealSectionProps): ReactElement {
  const reach = Math.max(bore, track.to, drain ?? 0, inset + width) * 1.15;
  const x = scaleLinear().domain([0, reach]).range([LEFT, RIGHT]);
  const write = (length: number): string => formatQuantity(length, 'length');
  const worn = track.worn > 0 ? Math.max(3, Math.min(DEEPEST, track.worn * 20)) : 0;
  const [from, to, lipAt] = [x(inset), x(inset + width), x(inset + lip)];
  const onto = sleeve ? SHAFT - 4 : SHAFT;
  const words = [
    `seal ${write(width)} wide, ${inset === 0 ? 'flush' : `${write(inset)} below the face`}`,
    `lip at ${write(inset + lip)}`,
    `track from ${write(track.from)} to ${write(track.to)}, ${write(track.worn)} deep`,
    ...(sleeve ? ['a sleeve over the track'] : []),
    ...(drain === undefined ? [] : [`drain hole at ${write(drain)}`]),
  ];
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={`${name}: ${words.join('; ')}`}>
      <path
        d={`M${LEFT},24H${WIDTH - 12}V${SHAFT - 16}H${x(bore)}V${BORE}H${LEFT}Z`}
        fill="var(--rule)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      {drain === undefined ? null : (
        <path d={`M${x(drain)},24V${BORE}H${x(drain) + 14}V24Z`} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.6" />
      )}
      <path
        d={`M12,${SHAFT}H${x(track.from)}v${worn}H${x(track.to)}v${-worn}H${WIDTH - 12}V${HEIGHT - 24}H12Z`}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      {sleeve ? (
        <rect
          x={x(track.from) - 26}
          y={SHAFT - 4}
          width={x(track.to) - x(track.from) + 52}
          height="4"
          fill="var(--brass)"
          stroke="var(--ink)"
        />
      ) : null}
      <path
        d={`M${from},${BORE}H${to}V${BORE + 12}H${from + 12}V${onto - 34}L${lipAt + 8},${onto - 22}L${lipAt},${onto}L${lipAt - 10},${onto - 20}L${from},${onto - 26}Z`}
        fill="var(--steel-2)"
        stroke="var(--ink)"
        strokeWidth="2"
        strokeLinejoin="round"
      />
      <circle cx={lipAt + 10} cy={onto - 30} r="6" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
      <path d={`M${lipAt},${onto}V${HEIGHT - 20}`} stroke="var(--steel)" strokeWidth="2" strokeDasharray="5 3" />
      <text x={lipAt} y={HEIGHT - 6} textAnchor="middle" fontSize="15">
        lip at {write(inset + lip)}
      </text>
      <text x={LEFT} y={18} fontSize="15">
        {inset === 0 ? 'flush' : `${write(inset)} below the face`}
      </text>
      {sleeve ? (
        <text x={x(track.to) + 32} y={SHAFT - 24} fontSize="15">
          sleeve
        </text>
      ) : null}
    </svg>
  );
}
