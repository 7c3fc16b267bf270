import { dropZeros, roundWithin } from '@jubb/core';
import { scaleLinear } from 'd3-scale';
import type { ReactElement } from 'react';

interface SettingLineProps {
  readonly name: string;
  readonly from: number;
  readonly to: number;
  readonly aim?: number | undefined;
  /** Readings of the tries so far, the last one being now. */
  readonly tries: readonly number[];
  readonly after?: number | undefined;
  readonly angle?: number | undefined;
  /** Play, which is preload left of zero; a gap or a depth is no such thing. */
  readonly isPlay?: boolean;
}

const WIDTH = 480;
const LEFT = 24;
const RIGHT = WIDTH - 24;
const RULE_Y = 92;
const BAND_H = 38;

/** What is set on a rule: the tries, the window wanted, where the turn will land. End play has preload left of zero. */
export function SettingLine({ name, from, to, aim, tries, after, angle, isPlay = true }: SettingLineProps): ReactElement {
  const furthest = Math.max(to * 1.6, ...tries, after ?? 0) * 1.12;
  const ends = [from, to, ...tries, ...(after === undefined ? [] : [after])];
  const [least, most] = [Math.min(...ends), Math.max(...ends)];
  const margin = Math.max(most - least, to - from) * 0.3;
  const x = scaleLinear()
    .domain(isPlay ? [-furthest * 0.28, furthest] : [least - margin, most + margin])
    .range([LEFT, RIGHT]);
  const write = (figure: number): string => dropZeros(roundWithin(figure, 3, { from, to }));
  const now = tries.at(-1);
  const words = `${name}: wanted ${write(from)} to ${write(to)} mm; ${tries.map((reading, index) => `try ${index + 1} ${write(reading)}`).join(', ') || 'no reading yet'}${after === undefined ? '' : `; after ${angle ?? 0}° it will be ${write(after)} mm`}`;
  return (
    <svg viewBox={`0 0 ${WIDTH} 212`} role="img" aria-label={words}>
      {x.ticks(40).map((tick) => (
        <line key={tick} x1={x(tick)} x2={x(tick)} y1={RULE_Y - 10} y2={RULE_Y} stroke="var(--soft)" />
      ))}
      {x.ticks(6).map((tick) => (
        <g key={tick}>
          <line x1={x(tick)} x2={x(tick)} y1={RULE_Y - 26} y2={RULE_Y} stroke="var(--soft)" strokeWidth={tick === 0 ? 4 : 1.5} />
          <text x={x(tick)} y={RULE_Y - 32} textAnchor="middle" fontSize="16" style={{ fill: 'var(--soft)' }}>
            {dropZeros(tick.toFixed(3))}
          </text>
        </g>
      ))}
      {isPlay ? (
        <>
          <rect x={LEFT} y={RULE_Y} width={x(0) - LEFT} height={BAND_H} fill="var(--brass-2)" />
          <text x={(LEFT + x(0)) / 2} y={RULE_Y + 25} textAnchor="middle" fontSize="17" style={{ fill: 'var(--brass)' }}>
            preload
          </text>
        </>
      ) : null}
      <rect x={x(from)} y={RULE_Y} width={x(to) - x(from)} height={BAND_H} fill="var(--steel-2)" stroke="var(--steel)" strokeWidth="2" />
      {aim === undefined ? null : (
        <line x1={x(aim)} x2={x(aim)} y1={RULE_Y} y2={RULE_Y + BAND_H} stroke="var(--steel)" strokeDasharray="2 4" strokeWidth="2" />
      )}
      <text x={x((from + to) / 2)} y={RULE_Y + BAND_H + 20} textAnchor="middle" fontSize="17" style={{ fill: 'var(--steel)' }}>
        wanted {write(from)} to {write(to)}
      </text>
      {tries.map((reading, index) => (
        <g key={index}>
          <path d={`M${x(reading) - 10} ${RULE_Y - 14}h20l-10 15z`} fill="var(--ink)" />
          <line x1={x(reading)} x2={x(reading)} y1={RULE_Y} y2={RULE_Y + BAND_H} stroke="var(--ink)" strokeWidth="4" />
          <text x={clamp(x(reading))} y={index % 2 === 0 ? 34 : 16} textAnchor="middle" fontSize="18">
            {index === tries.length - 1 ? `now ${write(reading)}` : `try ${index + 1}`}
          </text>
        </g>
      ))}
      {after === undefined || now === undefined ? null : (
        <g>
          <path d={`M${x(after) - 9} ${RULE_Y - 13}h18l-9 13z`} fill="var(--sheet)" stroke="var(--steel)" strokeWidth="2.5" />
          <line x1={x(after)} x2={x(after)} y1={RULE_Y} y2={RULE_Y + BAND_H} stroke="var(--steel)" strokeWidth="3" strokeDasharray="3 4" />
          <line x1={x(now)} x2={x(after)} y1={RULE_Y + BAND_H + 38} y2={RULE_Y + BAND_H + 38} stroke="var(--steel)" strokeWidth="4" />
          <path d={arrow(x(after), RULE_Y + BAND_H + 38, after < now ? -1 : 1)} fill="var(--steel)" />
          <text
            x={clamp((x(now) + x(after)) / 2)}
            y={RULE_Y + BAND_H + 62}
            textAnchor="middle"
            fontSize="18"
            style={{ fill: 'var(--steel)' }}
          >
            {write(Math.abs(now - after))}, {dropZeros(Math.abs(angle ?? 0).toFixed(1))}° of nut
          </text>
        </g>
      )}
    </svg>
  );
}

function clamp(position: number): number {
  return Math.min(RIGHT - 34, Math.max(LEFT + 34, position));
}

function arrow(x: number, y: number, direction: 1 | -1): string {
  return `M${x} ${y}l${-14 * direction} -9v18z`;
}
