import type { KeptEntry } from '../entries/kept.js';

/** What shows which way a part sits, as it is drawn on its plate. */
export type StackSign = 'lip' | 'bevel' | 'port' | 'notch' | 'writing' | 'step';

export interface StackLine {
  readonly entryId: string;
  readonly count: number;
  readonly name: string;
  readonly direction?: string;
  readonly mark?: string;
  readonly sign?: StackSign;
  /** The end that the sign looks to: the one that came off first, or the other. */
  readonly looks: 'first' | 'last';
  /** What came out of it when it was opened, in order. */
  readonly inner: readonly StackLine[];
}

/** Parts on one axis, in the order in which they came off. */
export interface Stack {
  readonly name: string;
  readonly lines: readonly StackLine[];
}

type Line = KeptEntry<'came-off'>;

const SIGNS: readonly (readonly [RegExp, StackSign])[] = [
  [/\blips?\b/iu, 'lip'],
  [/\b(?:bevels?|chamfers?|cone|dish)/iu, 'bevel'],
  [/\b(?:ports?|holes?)\b/iu, 'port'],
  [/\bnotch/iu, 'notch'],
  [/\b(?:writing|numbers?|letters?|arrows?)\b/iu, 'writing'],
  [/\b(?:step|ears?|open side|closed side|flat side)/iu, 'step'],
];

/** Towards where one works from. */
const OUTWARDS = /\b(?:out|outwards?|up|front|forwards?|leading)\b/iu;

/**
 * The stacks of a ledger, each in the order of its strip. An assembly that was opened later holds
 * what came out of it; one that lies in no stack is a stack of its own.
 */
export function stacksOf(ledger: readonly Line[]): readonly Stack[] {
  const known = new Set(ledger.map(({ id }) => id));
  const inside = new Map<string, Line[]>();
  const stacks = new Map<string, Line[]>();
  const add = (to: Map<string, Line[]>, key: string, line: Line): void => {
    to.set(key, [...(to.get(key) ?? []), line]);
  };
  for (const line of ledger) {
    const { inside: of, stack } = line.payload;
    // A line of its own again when the assembly's was struck.
    if (of !== undefined && known.has(of)) add(inside, of, line);
    else if (stack !== undefined) add(stacks, stack, line);
  }
  for (const line of ledger)
    if (line.payload.stack === undefined && line.payload.inside === undefined && inside.has(line.id)) add(stacks, line.payload.name, line);
  const draw = (line: Line): StackLine => {
    const { count, name, direction, mark } = line.payload;
    const sign = direction === undefined ? undefined : signOf(direction);
    return {
      entryId: line.id,
      count,
      name,
      ...(direction === undefined ? {} : { direction }),
      ...(mark === undefined ? {} : { mark }),
      ...(sign === undefined ? {} : { sign }),
      looks: direction !== undefined && OUTWARDS.test(direction) ? 'first' : 'last',
      inner: (inside.get(line.id) ?? []).map(draw),
    };
  };
  return [...stacks].map(([name, lines]) => ({ name, lines: lines.map(draw) }));
}

/** The other way round: the order of the build. */
export function upwards(lines: readonly StackLine[]): readonly StackLine[] {
  return lines.map((line) => ({ ...line, inner: upwards(line.inner) })).toReversed();
}

export function signOf(direction: string): StackSign | undefined {
  return SIGNS.find(([pattern]) => pattern.test(direction))?.[1];
}
