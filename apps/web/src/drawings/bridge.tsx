import type { ReactElement } from 'react';

interface BridgeProps {
  readonly name: string;
  readonly diodes: readonly { readonly name: string; readonly state: string }[];
  /** The one that is asked next. */
  readonly next?: string | undefined;
}

const COLUMN = 88;
const ROW_Y = [62, 168] as const;

/** A rectifier as it is joined: diodes to plus above, to minus below, each with its state in words. */
export function Bridge({ name, diodes, next }: BridgeProps): ReactElement {
  const below = diodes.filter(({ name: own }) => /^[−-]/u.test(own));
  const above = diodes.filter((one) => !below.includes(one));
  const columns = Math.max(above.length, below.length);
  const width = 60 + columns * COLUMN;
  return (
    <svg
      viewBox={`0 0 ${width} 230`}
      role="img"
      aria-label={`${name}: ${diodes.map((diode) => `${diode.name} ${diode.state}`).join(', ')}`}
    >
      <line x1="30" x2={width - 14} y1="20" y2="20" stroke="var(--ink)" strokeWidth="4" />
      <text x="10" y="26" fontSize="20">
        +
      </text>
      <line x1="30" x2={width - 14} y1="212" y2="212" stroke="var(--ink)" strokeWidth="4" />
      <text x="10" y="218" fontSize="20">
        −
      </text>
      {Array.from({ length: columns }, (_, column) => (
        <circle key={column} cx={30 + COLUMN * (column + 0.4)} cy={115} r="4" fill="var(--ink)" />
      ))}
      {[above, below].map((row, side) =>
        row.map((diode, column) => {
          const x = 30 + COLUMN * (column + 0.4);
          const y = ROW_Y[side]!;
          const isBad = !['sound', ''].includes(diode.state);
          const tone = diode.name === next ? 'var(--steel)' : isBad ? 'var(--out)' : 'var(--ink)';
          return (
            <g key={diode.name}>
              <line x1={x} x2={x} y1={side === 0 ? 20 : 115} y2={side === 0 ? 115 : 212} stroke="var(--ink)" strokeWidth="2" />
              <path
                d={`M${x - 13},${y + 11}h26l-13,-22z`}
                fill={diode.state === '' ? 'var(--sheet)' : tone}
                stroke={tone}
                strokeWidth="2"
              />
              <line x1={x - 13} x2={x + 13} y1={y - 11} y2={y - 11} stroke={tone} strokeWidth="3" />
              {isBad ? <path d={`M${x - 17},${y - 17}l34,34M${x + 17},${y - 17}l-34,34`} stroke="var(--out)" strokeWidth="3" /> : null}
              {diode.name === next ? <circle cx={x} cy={y} r="24" fill="none" stroke="var(--steel)" strokeWidth="2.5" /> : null}
              <text x={x + 20} y={y - 2} fontSize="15">
                {diode.name}
              </text>
              <text x={x + 20} y={y + 14} fontSize="13" style={{ fill: isBad ? 'var(--out)' : 'var(--soft)' }}>
                {diode.state}
              </text>
            </g>
          );
        }),
      )}
    </svg>
  );
}
