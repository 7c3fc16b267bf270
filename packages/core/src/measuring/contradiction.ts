/** How a reading may have come about that does not fit its brothers. */
export type Slip = 'decimal' | 'half turn' | 'unit' | 'sign' | 'apart';

export interface Contradiction {
  readonly slip: Slip;
  /** What was likely meant; none where nothing explains it. */
  readonly meant?: number;
}

/** One turn of a micrometer's thimble, mm: what is missed when the line on the sleeve is not seen. */
const THIMBLE_MM = 0.5;
const INCH_MM = 25.4;
/** Of a single reading against the middle of the others, in their spread. */
const FAR = 6;

interface Beside {
  /** Readings of the same thing, base units. */
  readonly others: readonly number[];
  /** The window that it is judged by. */
  readonly from?: number | undefined;
  readonly to?: number | undefined;
  /** Spread of single readings of the tool. */
  readonly spread: number;
  readonly isLength: boolean;
}

/**
 * Does a reading contradict its brothers, and how may that have come about?
 *
 * It is held against the middle of the others, or of the window while there are none. Within
 * six spreads, or the width of the window about the others, it fits. Else the slip that
 * brings it closest to the others is named: ten times too much or too little, half a millimetre of
 * a micrometer, inches, the sign.
 */
export function contradiction(reading: number, { others, from, to, spread, isLength }: Beside): Contradiction | undefined {
  const width = from !== undefined && to !== undefined ? to - from : 0;
  const middle = middleOf(others) ?? (width > 0 ? (from! + to!) / 2 : undefined);
  if (middle === undefined) return undefined;
  const own = others.length > 1 ? Math.max(...others) - Math.min(...others) : 0;
  // Worn parts lie well outside their window: without brothers only a gross slip is asked about.
  const near = others.length === 0 ? Math.max(20 * width, Math.abs(middle) * 0.2) : Math.max(FAR * spread, 2 * own, width);
  const fits = (figure: number): boolean => Math.abs(figure - middle) <= near;
  if (fits(reading)) return undefined;
  // What is tried must come much closer, or chance would name a slip for everything.
  const close = (figure: number): boolean => Math.abs(figure - middle) <= Math.min(near, Math.abs(reading - middle) / 4);
  const tries: readonly (readonly [Slip, number])[] = [
    ...(isLength ? [[`half turn`, reading + THIMBLE_MM] as const, [`half turn`, reading - THIMBLE_MM] as const] : []),
    ['decimal', reading * 10],
    ['decimal', reading / 10],
    ['decimal', reading * 100],
    ['decimal', reading / 100],
    ...(isLength ? [['unit', reading * INCH_MM] as const, ['unit', reading / INCH_MM] as const] : []),
    ['sign', -reading],
  ];
  // Half a turn is a slip only where the readings lie closer together than that.
  const likely = tries
    .filter(([slip, figure]) => close(figure) && (slip !== 'half turn' || near < THIMBLE_MM))
    .sort(([, one], [, other]) => Math.abs(one - middle) - Math.abs(other - middle))[0];
  return likely ? { slip: likely[0], meant: likely[1] } : { slip: 'apart' };
}

function middleOf(figures: readonly number[]): number | undefined {
  const sorted = [...figures].sort((one, other) => one - other);
  return sorted.length % 2
    ? sorted[(sorted.length - 1) / 2]
    : sorted.length === 0
      ? undefined
      : (sorted[sorted.length / 2 - 1]! + sorted[sorted.length / 2]!) / 2;
}
