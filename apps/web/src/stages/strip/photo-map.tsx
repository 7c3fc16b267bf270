import { isKind, type KeptEntry, type PayloadOf } from '@jubb/book';
import { useState, useSyncExternalStore, type KeyboardEvent, type MouseEvent, type ReactElement } from 'react';
import { useHere } from '../../job/use-job.ts';
import { files } from '../../link/files.ts';
import './strip.scss';

export interface Spot {
  readonly x: number;
  readonly y: number;
}

interface PhotoMapProps {
  readonly photo: KeptEntry<'photo'>;
  /** Dots of the line in hand; none where it is only shown. */
  readonly chosen?: readonly Spot[];
  readonly onChoose?: (spots: readonly Spot[]) => void;
}

const FULL = 1000;
const STEP = 20;
const CENTRE: Spot = { x: FULL / 2, y: FULL / 2 };

/** A photo of the housing with a dot where each fastener was; those of one line have its number. */
export function PhotoMap({ photo, chosen = [], onChoose }: PhotoMapProps): ReactElement {
  const { state } = useHere();
  const [aim, setAim] = useState<Spot>();
  // A photo that has arrived meanwhile has another address.
  useSyncExternalStore(files.subscribe, files.snapshot);
  const lines = linesOn(photo.id, state.ledger);
  const put = (spot: Spot): void => onChoose?.([...chosen, spot]);
  const onClick = (event: MouseEvent<HTMLButtonElement>): void => {
    // A key presses the button too, at no place: it has put its dot already.
    if (event.detail === 0) return;
    const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
    put({ x: Math.round((FULL * (event.clientX - left)) / width), y: Math.round((FULL * (event.clientY - top)) / height) });
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const [dx, dy] = ARROWS[event.key] ?? [0, 0];
    const at = aim ?? CENTRE;
    if (dx !== 0 || dy !== 0) setAim({ x: within(at.x + dx * STEP), y: within(at.y + dy * STEP) });
    else if (event.key === 'Enter' || event.key === ' ') put(at);
    else if (event.key === 'Backspace') onChoose?.(chosen.slice(0, -1));
    else return;
    event.preventDefault();
  };
  return (
    <figure className="m-0">
      <div className="photo-map">
        <img
          src={files.url(photo.payload.file)}
          alt={photo.payload.words ?? 'The housing'}
          width={photo.payload.width}
          height={photo.payload.height}
        />
        <svg viewBox={`0 0 ${FULL} ${FULL}`} preserveAspectRatio="none" aria-hidden="true">
          {aim && onChoose ? <path d={`M${aim.x - 30} ${aim.y}h60M${aim.x} ${aim.y - 30}v60`} stroke="var(--out)" strokeWidth="4" /> : null}
        </svg>
        {lines.flatMap(({ payload }, index) =>
          (payload.spots ?? []).map((spot) => <Dot key={`${index} ${spot.x} ${spot.y}`} spot={spot} number={index + 1} />),
        )}
        {chosen.map((spot) => (
          <Dot key={`${spot.x} ${spot.y}`} spot={spot} number={lines.length + 1} isChosen />
        ))}
        {onChoose ? (
          <button
            type="button"
            className="photo-aim"
            aria-label={`Dots on the photo, ${chosen.length} so far: arrows to aim, Enter to put one, Backspace to take it back`}
            onClick={onClick}
            onKeyDown={onKeyDown}
          />
        ) : null}
      </div>
      <figcaption className="soft">{lines.map(({ payload }, index) => `${index + 1}: ${lineWords(payload)}`).join('; ')}</figcaption>
    </figure>
  );
}

const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

function within(at: number): number {
  return Math.min(FULL, Math.max(0, at));
}

type Line = KeptEntry<'came-off'>;

function linesOn(photo: string, ledger: readonly Line[]): readonly Line[] {
  return ledger.filter(({ payload }) => payload.photo === photo);
}

function lineWords({ count, name, size }: PayloadOf<'came-off'>): string {
  return `${count} × ${name}${size && size !== name ? `, ${size}` : ''}`;
}

function Dot({
  spot,
  number,
  isChosen = false,
}: {
  readonly spot: Spot;
  readonly number: number;
  readonly isChosen?: boolean;
}): ReactElement {
  return (
    <span className={`photo-dot ${isChosen ? 'on' : ''}`} style={{ left: `${spot.x / 10}%`, top: `${spot.y / 10}%` }} aria-hidden="true">
      {number}
    </span>
  );
}

/** The photos that lines of the ledger are shown on. */
export function PhotoMaps(): ReactElement {
  const { state } = useHere();
  const photos = state.live.filter(isKind('photo')).filter(({ id }) => linesOn(id, state.ledger).length > 0);
  return (
    <>
      {photos.map((photo) => (
        <PhotoMap key={photo.id} photo={photo} />
      ))}
    </>
  );
}
