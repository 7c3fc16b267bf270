import type { LookPicture, Orientation } from '@jubb/sheet';
import type { ReactElement } from 'react';

/** What each look has on the surface, in a field of 48 × 32. */
const MARKS: Readonly<Record<LookPicture, ReactElement>> = {
  smooth: <path d="M6 11H42M6 16H42M6 21H42" strokeWidth="1" />,
  stained: <path d="M8 12q8-6 14 0t14-2M10 22q10-6 16-1t12-2" strokeDasharray="2 3" />,
  track: (
    <>
      <path d="M6 9H42M6 23H42" strokeWidth="1" />
      <path d="M6 14H42M6 16H42M6 18H42" strokeWidth="1.6" />
    </>
  ),
  nail: <path d="M6 20H22V24H26V20H42M14 6Q20 4 24 12L23 19L19 15Q14 12 14 6Z" strokeWidth="2" />,
  brinell: <path d="M6 11Q9 20 12 11Q15 20 18 11Q21 20 24 11Q27 20 30 11Q33 20 36 11Q39 20 42 11" strokeWidth="2" />,
  'other-colour': (
    <>
      <path d="M8 8H22V24H8Z" strokeWidth="2" />
      <path d="M26 8H40V24H26Z" fill="currentColor" strokeWidth="2" />
    </>
  ),
  pit: (
    <>
      <circle cx="14" cy="12" r="3" fill="currentColor" />
      <circle cx="27" cy="20" r="4" fill="currentColor" />
      <circle cx="37" cy="11" r="2" fill="currentColor" />
    </>
  ),
  step: <path d="M6 10H22V20H42" strokeWidth="3" />,
  score: <path d="M6 12L42 9M6 17L42 15M6 22L42 22" strokeWidth="2.5" />,
  blue: <path d="M6 6L18 26M14 6L26 26M22 6L34 26M30 6L42 26" strokeWidth="4" opacity="0.7" />,
  dent: <path d="M6 12H16q8 14 16 0H42" strokeWidth="2.5" />,
  chip: <path d="M6 8H42V24H30L26 17L20 24H6Z" strokeWidth="2.5" />,
  crack: <path d="M8 6L18 14L15 19L27 21L24 26L40 27" strokeWidth="2.5" />,
  'hard-lip': <path d="M6 24L20 8L24 24M30 8V24M36 8V24" strokeWidth="2.5" />,
  cut: <path d="M6 10H20L24 22L28 10H42" strokeWidth="2.5" />,
};

/** A look as a mechanic would sketch it; its words stand beside it. */
export function LookSketch({ picture }: { readonly picture: LookPicture }): ReactElement {
  return (
    <svg className="sketch" viewBox="0 0 48 32" width="60" height="40" aria-hidden="true" fill="none" stroke="currentColor">
      <rect x="2" y="2" width="44" height="28" strokeWidth="1.5" />
      {MARKS[picture]}
    </svg>
  );
}

const SEAL_WORDS: Readonly<Record<Orientation, string>> = {
  'lip-inwards': 'the lip looks inwards',
  'lip-outwards': 'the lip looks outwards',
  'ring-in-groove': 'the ring lies in its groove',
  flat: 'it lies flat between two faces',
  'face-to-face': 'the two polished faces meet',
  'cup-to-pressure': 'the open side looks to the pressure',
};

/** Housing hatched, shaft below, inside of the unit to the right. */
const SEALS: Readonly<Record<Orientation, ReactElement>> = {
  'lip-inwards': <path d="M52 16V44H58M52 44L70 62L74 58L60 44" strokeWidth="4" />,
  'lip-outwards': <path d="M68 16V44H62M68 44L50 62L46 58L60 44" strokeWidth="4" />,
  'ring-in-groove': (
    <>
      <path d="M44 16V34H76V16" strokeWidth="3" />
      <circle cx="60" cy="47" r="13" strokeWidth="4" />
    </>
  ),
  flat: <path d="M20 38H100V46H20Z" fill="currentColor" />,
  'face-to-face': <path d="M58 20H40V60H58ZM62 20H80V60H62Z" strokeWidth="4" />,
  'cup-to-pressure': <path d="M44 60V24Q60 36 76 24V60" strokeWidth="5" />,
};

/** How a seal lies, as a section; the inside of the unit is to the right. */
export function SealSketch({ picture }: { readonly picture: Orientation }): ReactElement {
  return (
    <svg className="seal-sketch" viewBox="0 0 120 90" width="180" height="135" role="img" aria-label={`Section: ${SEAL_WORDS[picture]}`}>
      <path d="M4 4H116V16H4Z" fill="var(--rule)" stroke="var(--ink)" />
      <path d="M4 66H116V86H4Z" fill="var(--steel-2)" stroke="var(--ink)" />
      <g fill="none" stroke="currentColor">
        {SEALS[picture]}
      </g>
      <text x="112" y="82" textAnchor="end" fontSize="11">
        inside →
      </text>
    </svg>
  );
}
