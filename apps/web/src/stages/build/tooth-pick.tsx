import { spotWords } from '@jubb/book';
import { CONTACT_ALONG, CONTACT_UP, contactShare, type ContactSpots } from '@jubb/core';
import { useRef, type CSSProperties, type KeyboardEvent, type ReactElement, type Ref } from 'react';
import './tooth-pick.scss';

export interface Spot {
  readonly along: ContactSpots['driveAlong'];
  readonly up: ContactSpots['driveUp'];
}

const ALONG = CONTACT_ALONG.toSorted((one, other) => contactShare(one) - contactShare(other));
/** The face is on top. */
const UP = CONTACT_UP.toSorted((one, other) => contactShare(other) - contactShare(one));
const MIDDLE = 2;

const ARROWS: Readonly<Record<string, readonly [along: number, up: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface ToothPickProps {
  readonly label: string;
  readonly spot: Spot | undefined;
  readonly onPick: (spot: Spot) => void;
  /** Enter on a place that is picked. */
  readonly onEnter: () => void;
  /** The place that Tab comes to. */
  readonly focusRef?: Ref<HTMLButtonElement>;
}

/** One side of a tooth, toe at the left and face on top: where the paint is worn off is tapped, or gone to by the arrows. */
export function ToothPick({ label, spot, onPick, onEnter, focusRef }: ToothPickProps): ReactElement {
  const box = useRef<HTMLDivElement>(null);
  const [column, row] = spot ? [ALONG.indexOf(spot.along), UP.indexOf(spot.up)] : [MIDDLE, MIDDLE];
  const goTo = (along: number, up: number): void => {
    const to = { along: ALONG[Math.min(ALONG.length - 1, Math.max(0, along))]!, up: UP[Math.min(UP.length - 1, Math.max(0, up))]! };
    onPick(to);
    box.current?.querySelector<HTMLElement>(`[data-at="${to.along} ${to.up}"]`)?.focus();
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const arrow = ARROWS[event.key];
    if (!arrow && event.key !== 'Enter') return;
    event.preventDefault();
    if (arrow) goTo(column + arrow[0], row + arrow[1]);
    else if (spot) onEnter();
    else goTo(column, row);
  };
  return (
    <div className="tooth-pick">
      <div className="name">
        {label}: <span className={spot ? '' : 'soft'}>{spot ? spotWords(spot.along, spot.up) : 'not read yet'}</span>
      </div>
      <div className="ends">
        <span>toe</span>
        <span>face on top, root below</span>
        <span>heel</span>
      </div>
      <div ref={box} className="tooth" role="radiogroup" aria-label={label} onKeyDown={onKeyDown}>
        {ALONG.map((along, place) => (
          <div key={along} style={{ '--place': place } as CSSProperties}>
            {UP.map((up, height) => {
              const isHere = place === column && height === row;
              return (
                <button
                  key={up}
                  ref={isHere ? focusRef : undefined}
                  type="button"
                  role="radio"
                  aria-checked={isHere && spot !== undefined}
                  aria-label={spotWords(along, up)}
                  data-at={`${along} ${up}`}
                  tabIndex={isHere ? 0 : -1}
                  onClick={() => onPick({ along, up })}
                />
              );
            })}
          </div>
        ))}
      </div>
    </div>
  );
}
