import { upwards, type Stack, type StackLine, type StackSign } from '@jubb/book';
import type { ReactElement } from 'react';
import './strip.scss';

interface StackViewProps {
  readonly stack: Stack;
  /** As it came off, or the other way round, as it goes together. */
  readonly order: 'strip' | 'build';
}

const PITCH = 46;
const PLATE = 26;
const HEIGHT = 120;
const AXIS = 64;
const REACH = 44;

/** Parts along their axis, each with what shows how it sits; the list under it says the same. */
export function StackView({ stack, order }: StackViewProps): ReactElement {
  const lines = order === 'build' ? upwards(stack.lines) : stack.lines;
  const flat = flatten(lines);
  const width = PITCH * flat.length + 24;
  return (
    <figure className="mb-3">
      <figcaption>
        <b>{stack.name}</b>, {order === 'build' ? 'first in at the left' : 'first off at the left'}
      </figcaption>
      <div style={{ overflowX: 'auto' }} tabIndex={0} role="group" aria-label={`${stack.name}, drawn`}>
        <svg
          viewBox={`0 0 ${width} ${HEIGHT}`}
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={listed(flat)}
          style={{ maxWidth: 'none' }}
        >
          <line x1="0" y1={AXIS} x2={width} y2={AXIS} stroke="var(--rule)" strokeWidth="2" strokeDasharray="14 4 3 4" />
          {flat.map(({ line, depth }, index) => (
            <Plate
              key={line.entryId}
              line={line}
              flipped={(line.looks === 'first') === (order === 'strip')}
              number={index + 1}
              x={12 + PITCH * index + PITCH / 2}
              depth={depth}
            />
          ))}
        </svg>
      </div>
      <ol className="stack-list">
        {lines.map((line) => (
          <Named key={line.entryId} line={line} />
        ))}
      </ol>
    </figure>
  );
}

interface Flat {
  readonly line: StackLine;
  readonly depth: number;
}

function flatten(lines: readonly StackLine[], depth = 0): readonly Flat[] {
  return lines.flatMap((line) => [{ line, depth }, ...flatten(line.inner, depth + 1)]);
}

function listed(flat: readonly Flat[]): string {
  return flat.map(({ line }, index) => `${index + 1}: ${[line.name, line.direction, line.mark].filter(Boolean).join(', ')}`).join('; ');
}

function Named({ line }: { readonly line: StackLine }): ReactElement {
  return (
    <li>
      {line.count > 1 ? `${line.count} × ` : ''}
      {line.name}
      {line.direction ? <span className="soft">, {line.direction}</span> : null}
      {line.mark ? <b className="brass">, {line.mark}</b> : null}
      {line.inner.length > 0 ? (
        <ol className="stack-list">
          {line.inner.map((inner) => (
            <Named key={inner.entryId} line={inner} />
          ))}
        </ol>
      ) : null}
    </li>
  );
}

interface PlateProps {
  readonly line: StackLine;
  /** Its sign looks to the left. */
  readonly flipped: boolean;
  readonly number: number;
  readonly x: number;
  readonly depth: number;
}

function Plate({ line, flipped, number, x, depth }: PlateProps): ReactElement {
  // What came out of an assembly is drawn smaller than what held it.
  const reach = REACH - Math.min(depth, 3) * 9;
  const left = x - PLATE / 2;
  return (
    <g>
      {line.inner.length > 0 ? (
        <rect
          x={left - 4}
          y={AXIS - reach - 4}
          width={PLATE + 8}
          height={2 * reach + 8}
          fill="none"
          stroke="var(--rule)"
          strokeWidth="2"
          strokeDasharray="5 4"
        />
      ) : null}
      <path
        d={outline(line.sign, left, reach)}
        transform={flipped ? `matrix(-1 0 0 1 ${2 * x} 0)` : undefined}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth="2"
        strokeLinejoin="round"
      />
      {line.sign === 'port' ? (
        <circle cx={x} cy={AXIS - reach + 14} r="5" fill="var(--ground)" stroke="var(--ink)" strokeWidth="2" />
      ) : null}
      {line.sign === 'writing' ? (
        <path d={`M${left + 6} ${AXIS - reach + 12}h14M${left + 6} ${AXIS - reach + 18}h9`} stroke="var(--ink)" strokeWidth="2" />
      ) : null}
      {line.mark ? <path d={`M${x} ${AXIS - reach - 10}v-6`} stroke="var(--brass)" strokeWidth="5" strokeLinecap="round" /> : null}
      <text x={x} y={AXIS + 5} textAnchor="middle" fontSize="17" fontWeight="600">
        {number}
      </text>
    </g>
  );
}

/** A plate with what shows its way at the corner: cut for a bevel, hooked for a lip, nicked for a notch, stepped for a step. */
function outline(sign: StackSign | undefined, left: number, reach: number): string {
  const [top, bottom, right] = [AXIS - reach, AXIS + reach, left + PLATE];
  switch (sign) {
    case 'bevel':
      return `M${left} ${top}H${right - 12}L${right} ${top + 12}V${bottom - 12}L${right - 12} ${bottom}H${left}Z`;
    case 'lip':
      return `M${left} ${top}H${right}L${right + 8} ${top + 14}L${right} ${top + 12}V${bottom - 12}L${right + 8} ${bottom - 14}L${right} ${bottom}H${left}Z`;
    case 'notch':
      return `M${left} ${top}H${left + 8}V${top + 10}H${right - 8}V${top}H${right}V${bottom}H${left}Z`;
    case 'step':
      return `M${left} ${top + 14}H${left + PLATE / 2}V${top}H${right}V${bottom}H${left + PLATE / 2}V${bottom - 14}H${left}Z`;
    default:
      return `M${left} ${top}H${right}V${bottom}H${left}Z`;
  }
}
