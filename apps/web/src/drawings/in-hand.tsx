import type { ReactElement } from 'react';

/** What is in the hand, drawn in a few lines on a field of 40 × 28. */
const SHAPES: Readonly<Record<string, ReactElement>> = {
  screw: (
    <>
      <path d="M3 7h9v14H3z" />
      <path d="M12 10h23v8H12z" />
      <path d="M17 10l3 8M22 10l3 8M27 10l3 8" />
    </>
  ),
  bearing: (
    <>
      <circle cx="20" cy="14" r="12" />
      <circle cx="20" cy="14" r="5" />
      <circle cx="20" cy="5.5" r="2.4" />
      <circle cx="28" cy="14" r="2.4" />
      <circle cx="12" cy="14" r="2.4" />
      <circle cx="20" cy="22.5" r="2.4" />
    </>
  ),
  seal: (
    <>
      <path d="M8 3h20v5h-9v9l-5 6-1-6V8H8z" />
      <circle cx="18" cy="15" r="2" />
      <path d="M4 26h32" />
    </>
  ),
  gear: (
    <>
      <circle cx="20" cy="14" r="8" />
      <circle cx="20" cy="14" r="2.5" />
      <path d="M20 2v4M20 22v4M8 14h4M28 14h4M11.5 5.5l3 3M25.500 19.500l3 3M28.500 5.500l-3 3M14.500 19.500l-3 3" />
    </>
  ),
  clutch: (
    <>
      <path d="M6 6h4v16H6zM13 4h3v20h-3zM19 6h4v16h-4zM26 4h3v20h-3z" />
      <path d="M29 14h7" />
    </>
  ),
  press: (
    <>
      <path d="M14 2h12v14H14z" />
      <path d="M4 26V12h8M36 26V12h-8" />
      <path d="M20 19v6M17 22l3 4 3-4" />
    </>
  ),
  wire: <path d="M2 14h6l3-9 5 18 5-18 5 18 3-9h9" />,
  gauge: (
    <>
      <path d="M6 24a14 14 0 0 1 28 0z" />
      <path d="M20 24l8-9" />
      <path d="M9 18l3 1M20 10v3M31 18l-3 1" />
    </>
  ),
  unknown: (
    <>
      <path d="M6 4h28v20H6z" strokeDasharray="4 3" />
      <path d="M16 11a4 4 0 1 1 5 4c-1 .4-1 1-1 2M20 20v1" />
    </>
  ),
  money: <path d="M4 24h6v-7h6v-6h6v6h6V7h8" />,
  time: (
    <>
      <circle cx="20" cy="14" r="11" />
      <path d="M20 7v7l5 4" />
    </>
  ),
};

/** The small drawing beside the questions of a hand. */
export function InHand({ of }: { readonly of: string }): ReactElement {
  return (
    <svg className="in-hand" viewBox="0 0 40 28" width="40" height="28" aria-hidden="true">
      {SHAPES[of]}
    </svg>
  );
}
