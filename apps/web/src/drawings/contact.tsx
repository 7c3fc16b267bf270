import type { ReactElement } from 'react';

interface Spot {
  readonly along: number;
  readonly up: number;
}

interface ContactProps {
  readonly name: string;
  readonly drive: Spot;
  readonly coast: Spot;
}

/** Two flanks of a ring gear tooth, toe at the left, with the worn-off paint where they touch; where it should be is dashed. */
export function Contact({ name, drive, coast }: ContactProps): ReactElement {
  return (
    <svg viewBox="0 0 460 190" role="img" aria-label={`${name}. Drive side: ${placeWords(drive)}; coast side: ${placeWords(coast)}`}>
      <Flank x={10} label="drive" spot={drive} />
      <Flank x={240} label="coast" spot={coast} />
    </svg>
  );
}

function placeWords({ along, up }: Spot): string {
  const say = (share: number, low: string, high: string): string =>
    share < 0.2 ? low : share < 0.4 ? `a little to the ${low}` : share <= 0.6 ? 'middle' : share <= 0.8 ? `a little to the ${high}` : high;
  return `along ${say(along, 'toe', 'heel')}, up ${say(up, 'flank', 'face')}`;
}

function Flank({ x, label, spot }: { readonly x: number; readonly label: string; readonly spot: Spot }): ReactElement {
  // The tooth is lower at the toe.
  const height = (along: number): number => 70 + 40 * along;
  const at = { x: x + 44 + 122 * spot.along, y: 140 - (0.24 + 0.5 * spot.up) * height(spot.along) };
  return (
    <g>
      <path d={`M${x},140L${x + 210},140L${x + 210},30L${x},70Z`} fill="var(--steel-2)" stroke="var(--ink)" strokeWidth="2" />
      <ellipse cx={x + 105} cy={140 - 0.5 * height(0.5)} rx="52" ry="20" fill="none" stroke="var(--steel)" strokeDasharray="4 4" />
      <ellipse cx={at.x} cy={at.y} rx="38" ry="14" fill="var(--brass)" stroke="var(--ink)" strokeWidth="1.4" />
      <text x={x} y={162} fontSize="18" style={{ fill: 'var(--soft)' }}>
        toe
      </text>
      <text x={x + 210} y={162} textAnchor="end" fontSize="18" style={{ fill: 'var(--soft)' }}>
        heel
      </text>
      <text x={x + 105} y={182} textAnchor="middle" fontSize="20">
        {label}
      </text>
    </g>
  );
}
