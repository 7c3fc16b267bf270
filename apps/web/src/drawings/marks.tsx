import { formatQuantity, type Drawing } from '@jubb/core';
import type { ReactElement } from 'react';

export type MarksDrawing = Extract<Drawing, { kind: 'marks' }>;
type MarksProps = Omit<MarksDrawing, 'kind'> & { readonly name: string; readonly isTrue?: boolean };

/** Of the shaft before the first mark and behind the last one, mm. */
const BEFORE = 12;
/** Words above and below, mm. */
const WORDS = 9;

/** A shaft with its marks, all in mm: at true size it is held against the shaft itself. */
export function Marks({ name, shaft, marks, between, isTrue = false }: MarksProps): ReactElement {
  const ats = [...marks.map(({ at }) => at), ...(between ? [between.from, between.to] : [])];
  const [from, to] = [Math.min(...ats) - BEFORE, Math.max(...ats) + BEFORE];
  const [wide, high] = [to - from, shaft + 2 * WORDS];
  // On the screen its lines and words are as thin as those of other drawings, whatever the shaft.
  const times = isTrue ? 1 : Math.max(wide, high) / 110;
  const ink = isTrue ? 'black' : 'var(--ink)';
  const write = (length: number): string => formatQuantity(length, 'length');
  return (
    <svg
      xmlns="http://www.w3.org/2000/svg"
      viewBox={`${from} ${-WORDS} ${wide} ${high}`}
      {...(isTrue ? { width: `${wide}mm`, height: `${high}mm` } : {})}
      role="img"
      aria-label={`${name}: shaft ${write(shaft)}; ${marks.map((mark) => `${mark.name} at ${write(mark.at)}`).join(', ')}`}
    >
      <path d={`M${from},0H${to}M${from},${shaft}H${to}`} stroke={ink} strokeWidth={0.4 * times} />
      <path d={`M${from},${shaft / 2}H${to}`} stroke={ink} strokeWidth={0.2 * times} strokeDasharray="6 1.5 1 1.5" />
      {between ? (
        <rect x={between.from} y="0" width={between.to - between.from} height={shaft} fill={isTrue ? '#ddd' : 'var(--steel-2)'} />
      ) : null}
      {marks.map((mark, at) => (
        <g key={mark.name}>
          <path d={`M${mark.at},0V${shaft}`} stroke={ink} strokeWidth={0.6 * times} />
          <text x={mark.at} y={at % 2 === 0 ? -2.5 : shaft + 5.5} fontSize={4 * times} textAnchor="middle" fill={ink}>
            {mark.name} {write(mark.at)}
          </text>
        </g>
      ))}
    </svg>
  );
}
