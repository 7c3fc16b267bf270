import { jointPoints, type KeptEntry } from '@jubb/book';
import type { Joint } from '@jubb/sheet';
import { fit, sizeWithin } from '../../drawings/joint-plate.tsx';
import type { ReactElement } from 'react';
import './strip.scss';

interface FastenerMapProps {
  readonly joint: Joint;
  readonly ledger: readonly KeptEntry<'came-off'>[];
  /** Places picked for the line in hand, from 0. */
  readonly chosen: readonly number[];
  readonly onChoose: (places: readonly number[]) => void;
}

const SIZE = 400;
const DOT = 24;
/** More than a finger can pick from on a small drawing. */
const MANY = 12;
/** One shape for each kind or length, so that the odd ones stand out without colour. */
const SHAPES: readonly ((size: number) => string)[] = [
  (r) => `M${-r} 0A${r} ${r} 0 1 1 ${r} 0A${r} ${r} 0 1 1 ${-r} 0Z`,
  (r) => `M${-r} ${-r}H${r}V${r}H${-r}Z`,
  (r) => `M0 ${-r * 1.2}L${r * 1.2} ${r}H${-r * 1.2}Z`,
  (r) => `M0 ${-r * 1.3}L${r * 1.3} 0L0 ${r * 1.3}L${-r * 1.3} 0Z`,
];

/** Where each fastener of a joint lives: those that are off by the shape of their kind, the rest to be picked. */
export function FastenerMap({ joint, ledger, chosen, onChoose }: FastenerMapProps): ReactElement {
  const points = jointPoints(joint);
  const at = fit(points);
  const mapped = ledger.filter(({ payload }) => payload.joint === joint.ref && payload.places);
  const kinds = [...new Set(mapped.map(({ payload }) => kindOf(payload)))];
  const shapeOf = (place: number): number => kinds.indexOf(kindOfPlace(mapped, place));
  const dot = sizeWithin(points, DOT);
  const toggle = (place: number): void =>
    onChoose(chosen.includes(place) ? chosen.filter((other) => other !== place) : [...chosen, place].toSorted((a, b) => a - b));
  const lengths = (joint.lengths ?? []).map(({ length, count, where }) => `${count} of ${length}${where ? ` ${where}` : ''}`);
  return (
    <figure className="m-0">
      <div className={points.length > MANY ? 'map many' : 'map'} role="group" aria-label={`Where the ${joint.name} live`}>
        <svg viewBox={`0 0 ${SIZE} ${SIZE}`} aria-hidden="true">
          {joint.pattern.layout === 'circle' ? (
            <circle cx={SIZE / 2} cy={SIZE / 2} r="192" fill="none" stroke="var(--ink)" strokeWidth="2" />
          ) : null}
          {points.map((point, place) => {
            const { x, y } = at(place) ?? point;
            const shape = shapeOf(place);
            const isChosen = chosen.includes(place);
            return (
              <g key={place} transform={`translate(${x} ${y})`}>
                <path
                  d={(SHAPES[Math.max(0, shape) % SHAPES.length] ?? SHAPES[0]!)(dot)}
                  fill={shape >= 0 ? 'var(--ink)' : isChosen ? 'var(--steel)' : 'var(--sheet)'}
                  stroke="var(--ink)"
                  strokeWidth="2"
                />
                <text
                  y={dot * 0.3}
                  textAnchor="middle"
                  fontSize={Math.min(17, dot * 0.95)}
                  style={{ fill: shape >= 0 || isChosen ? 'var(--sheet)' : 'var(--ink)' }}
                >
                  {place + 1}
                </text>
              </g>
            );
          })}
        </svg>
        {points.map((_, place) => {
          const { x, y } = at(place);
          const held = kindOfPlace(mapped, place);
          return (
            <button
              key={place}
              type="button"
              className="map-place"
              style={{ left: `${(100 * x) / SIZE}%`, top: `${(100 * y) / SIZE}%` }}
              disabled={held !== ''}
              aria-pressed={chosen.includes(place)}
              aria-label={`Place ${place + 1}${held === '' ? '' : `: ${held}`}`}
              onClick={() => toggle(place)}
            />
          );
        })}
      </div>
      <figcaption className="soft">
        {kinds.length > 0
          ? kinds.map((kind, index) => `${SHAPE_NAMES[index % SHAPES.length] ?? ''}: ${kind}`).join('; ')
          : 'Tap the places that this line comes out of, if they differ.'}
        {lengths.length > 0 ? ` On the sheet: ${lengths.join(', ')}.` : ''}
      </figcaption>
    </figure>
  );
}

const SHAPE_NAMES = ['round', 'square', 'triangle', 'diamond'];

type Payload = KeptEntry<'came-off'>['payload'];

function kindOf({ size, name, condition }: Payload): string {
  return [size === name ? undefined : size, condition].filter(Boolean).join(', ') || name;
}

function kindOfPlace(mapped: readonly KeptEntry<'came-off'>[], place: number): string {
  const line = mapped.find(({ payload }) => payload.places?.includes(place));
  return line ? kindOf(line.payload) : '';
}
