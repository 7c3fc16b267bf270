import { cutText } from '@jubb/sheet';
import { parseThread } from '@jubb/core';

/** A line of the strip ledger as it was typed, taken apart. */
export interface LedgerLine {
  readonly count: number;
  readonly name: string;
  /** Thread and length, or a length alone: "M8 x 25", "25 mm". */
  readonly size?: string;
  /** Where it came from, on the unit. */
  readonly place?: string;
  readonly tray?: string;
  /** Which way it sat: "bevel up", "lip in". */
  readonly direction?: string;
  /** What was marked: "dot to dot", "paint line". */
  readonly mark?: string;
  /** What it looked like: "bent", "blue". */
  readonly condition?: string;
  /** The axis it lay on with others: "stack: head". */
  readonly stack?: string;
}

export type LedgerField = Exclude<keyof LedgerLine, 'count' | 'name'>;

const MOST = 1000;
const LONGEST = 200;

/** Words that say which way something sat, and which way that can be. */
const FACES =
  'lips?|bevels?|chamfers?|ports?|holes?|notch(?:es)?|writing|numbers?|letters?|arrows?|step(?:ped end)?|open side|closed side|flat side|dots?|springs?|ears?|cones?|dish(?:ed side)?';
const WAYS =
  'up|down|in|out|inwards?|outwards?|left|right|front|rear|forwards?|backwards?|leading|trailing|(?:to(?:wards)?|facing) (?:the )?[a-z]+(?: [a-z]+)?';
const DIRECTION = new RegExp(
  `\\b(?:(?:small|large|big|short|long|wide|narrow) )?(?:${FACES}) (?:${WAYS})\\b|\\bas stacked\\b|\\bone notch over\\b`,
  'iu',
);
const MARK =
  /\b(?:dot to dot|dots? (?:in line|at \S+)|paint (?:line|dot)s?(?: [^,]+)?|(?:centre )?punch(?:ed| marks?)?(?: [^,]+)?|scribed(?: [^,]+)?|\d{1,2} o['’]?clock|tooth \d+|mark(?:ed)? [^,]+)/iu;
const CONDITION =
  /\b(?:bent|worn|rusty|rusted|scored|cracked|pitted|blued?|broken|burnt|stripped|stretched|dry|swollen|hard|torn|damaged|chipped|seized|sheared|corroded|flattened|sound|clean)\b(?: (?:threads?|head|lip|edge|corner))?/iu;
const TRAY = /\b(?:tray|bin|bag|box) ([^\s,]{1,20})/iu;
const PLACE = /\b(?:from|off|out of|behind|under) (?:the )?([^,]+)/iu;
const STACK = /\bstack: ?([^,]{1,60})/iu;
const LENGTH = /\b\d+(?:[.,]\d+)? ?(?:mm|in|long)\b/iu;
const THREADED =
  /(?:\bM ?\d+(?:[.,]\d+)?(?: ?[x×] ?\d+(?:[.,]\d+)?)*|(?:#\d+|\b\d+(?:\/\d+)?)-\d+(?: ?(?:UNC|UNF|UNEF|BSF|BSW))?(?: ?[x×] ?[\d/.]+(?: ?in)?)?)(?= |,|$)/iu;

/**
 * "6 x M8x25 top cover tray 3" → six, M8 x 25, top cover, tray 3. What no rule takes is the name.
 * Undefined when nothing is named or the count is not from 1 to 1000: a line is never guessed.
 */
export function readLedgerLine(text: string): LedgerLine | undefined {
  const given = cutText(text.trim(), LONGEST);
  const counted = /^(\d{1,5})\s*(?:[x×]\s+|[x×](?=[^\d\s])|\s+|,\s*)(?!mm\b|in\b|o['’]?clock)(.+)$/isu.exec(given);
  const count = counted ? Number(counted[1]) : 1;
  if (count < 1 || count > MOST) return undefined;
  let rest = counted?.[2] ?? given;
  const found: Partial<Record<LedgerField, string>> = {};
  const take = (field: LedgerField, pattern: RegExp, group = 0): void => {
    const match = pattern.exec(rest);
    if (!match) return;
    found[field] = (match[group] ?? '').trim();
    // A comma stands for what was taken out: what stood on its two sides does not grow together.
    rest = `${rest.slice(0, match.index)},${rest.slice(match.index + match[0].length)}`;
  };
  take('stack', STACK, 1);
  take('tray', TRAY, 1);
  take('size', THREADED);
  if (found.size !== undefined) found.size = sizeWords(found.size);
  else take('size', LENGTH);
  take('mark', MARK);
  take('direction', DIRECTION);
  take('condition', CONDITION);
  take('place', PLACE, 1);
  const name = rest
    .split(',')
    .map((part) => part.trim().replace(/\s+/gu, ' '))
    .filter((part) => part !== '' && !/^(?:and|with|in|of|[x×])$/iu.test(part))
    .join(', ');
  // A screw that is told by its thread alone has that for a name.
  if (name === '' && found.size === undefined) return undefined;
  return { count, name: name === '' ? (found.size ?? '') : name, ...found };
}

/** "M8x25" is a thread and a length, "M8x1.25x25" one with its pitch: a pitch is one that the thread has. */
function sizeWords(size: string): string {
  const [first = '', second, third] = size.split(/\s*[x×]\s*/u);
  if (second === undefined) return first;
  const isPitch = third !== undefined || (Number(second.replace(',', '.')) < 7 && parseThread(`${first}x${second}`) !== undefined);
  const thread = isPitch ? `${first}x${second}` : first;
  const length = isPitch ? third : second;
  return length === undefined ? thread : `${thread} x ${length}`;
}
