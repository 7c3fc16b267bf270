import { formatQuantity, type ContactSpots } from '@jubb/core';
import type { PayloadOf } from '../entries/kept.js';

const PLACE_WORDS: Readonly<Record<ContactSpots[keyof ContactSpots], string>> = {
  centre: '',
  toe: 'at the toe',
  'toe-ish': 'a little to the toe',
  'heel-ish': 'a little to the heel',
  heel: 'at the heel',
  flank: 'deep on the flank',
  'flank-ish': 'a little deep',
  'face-ish': 'a little high',
  face: 'up at the face',
};

/** Where one side of a tooth carries: "at the heel, up at the face". */
export function spotWords(along: ContactSpots['driveAlong'], up: ContactSpots['driveUp']): string {
  return (
    [along, up]
      .map((place) => PLACE_WORDS[place])
      .filter(Boolean)
      .join(', ') || 'in the middle'
  );
}

export function patternWords({ driveAlong, driveUp, coastAlong, coastUp }: ContactSpots): string {
  return `drive ${spotWords(driveAlong, driveUp)}; coast ${spotWords(coastAlong, coastUp)}`;
}

/** "pinion 0.05 mm deeper", "ring 0.1 mm away from the pinion". */
export function gearMovedWords({ gear, by }: Pick<PayloadOf<'gear-moved'>, 'gear' | 'by'>): string {
  const way = { pinion: by > 0 ? 'deeper' : 'further out', ring: by > 0 ? 'to the pinion' : 'away from the pinion' }[gear];
  return `${gear} ${formatQuantity(Math.abs(by), 'length')} ${way}`;
}
