import { cutText, quantitiesOf, type Tool } from '@jubb/sheet';
import { validated } from '@jubb/sheet/given';
import { InstrumentLine, type FieldProblem, type LiveLine, type TabletView } from '@jubb/wire';
import { createHash } from 'node:crypto';
import { findUnits, formatQuantity, toBase, unitsOf } from '@jubb/core';
import { badInput } from '../common/problem.js';
import { fieldProblems } from '../common/validation.js';

/** What of an instrument its lines are held against. */
export interface Sender {
  readonly id: string;
  readonly tool: Tool;
  readonly tablet: TabletView | null;
}

/** The instant, and the day that it is in the shop. */
export interface Clock {
  readonly now: string;
  readonly today: string;
}

/** A line, and what it is known by when it is sent again. */
export interface ReadLine {
  readonly line: LiveLine;
  readonly mark: string;
}

export interface ReadLines {
  readonly lines: readonly ReadLine[];
  readonly refused: readonly FieldProblem[];
}

export const MOST_LINES = 200;
const MOST_SHOWN = 60;
/** A wrench swings through its end stop, a calliper opens a little past its scale. */
const OVER_RANGE = 1.02;

/**
 * Reads what an instrument sent, a line each (NDJSON): those that hold are lines for the benches, the others
 * are named with their number. Bytes that are no text make lines that are no JSON; nothing else is harmed.
 */
export function readLines(body: Buffer, sender: Sender, { now, today }: Clock): ReadLines {
  const texts = body
    .toString('utf8')
    .split('\n')
    .map((text, at) => ({ text: text.trim(), number: at + 1 }))
    .filter(({ text }) => text !== '');
  if (texts.length > MOST_LINES)
    throw badInput([
      { field: 'body', given: `${texts.length} lines`, allowed: `takes at most ${MOST_LINES} lines at once; send the others after` },
    ]);
  const refused: FieldProblem[] = [];
  const lines: ReadLine[] = [];
  for (const { text, number } of texts) {
    const read = readLine(text, sender, { now, today });
    if ('problems' in read) refused.push(...read.problems.map((problem) => ({ ...problem, line: number })));
    else lines.push(read);
  }
  return { lines, refused };
}

function readLine(
  text: string,
  { id, tool, tablet }: Sender,
  { now, today }: Clock,
): ReadLine | { readonly problems: readonly FieldProblem[] } {
  let given: unknown;
  try {
    given = JSON.parse(text);
  } catch {
    return refuse('line', shown(text), 'is not a whole line of JSON; send it again');
  }
  if (typeof given !== 'object' || given === null || Array.isArray(given))
    return refuse('line', shown(text), 'must be one reading: {"n": 1, "value": 12.34, "unit": "mm"}');
  const { issues } = validated<object>(InstrumentLine, given, '');
  if (issues.length > 0) return { problems: fieldProblems(issues) };
  const { n, value, unit, taken = false, angle, battery, run = '' } = given as InstrumentLine;
  const quantities = quantitiesOf(tool);
  const known = findUnits(unit).find(({ quantity }) => quantities.includes(quantity));
  if (!known)
    return refuse(
      'unit',
      unit,
      `is no unit of ${quantities.join(' or ')}, which ${tool.tag} reads: ${quantities
        .flatMap((quantity) => unitsOf(quantity))
        .map(({ symbol }) => symbol)
        .join(', ')}`,
    );
  const base = value === undefined ? null : toBase(value, known);
  const marked = mark(tool, base, today);
  return {
    mark: `${run === '' ? '' : RUN}${createHash('sha256')
      .update(JSON.stringify([run, n, value, unit, taken, angle]))
      .digest('base64url')}`,
    line: {
      instrumentId: id,
      toolId: tool.id,
      tabletId: tablet?.id ?? null,
      n,
      at: now,
      base,
      quantity: known.quantity,
      unit: known.symbol,
      taken,
      ...(angle === undefined ? {} : { angle }),
      ...(battery === 'low' ? { battery } : {}),
      ...(marked === undefined ? {} : { marked }),
    },
  };
}

/** Before the mark of a line whose run is named: such a line is never another one. */
export const RUN = 'r:';

/** Why a reading must not be used: past its check, or out of what the instrument can read. */
function mark({ tag, calibrationDue, retired, quantity, unit, low, high }: Tool, base: number | null, today: string): string | undefined {
  if (retired) return `${tag} was put out of use ${retired}`;
  if (calibrationDue !== null && calibrationDue < today) return `${tag} is past its check, which was due ${calibrationDue}`;
  if (base === null || high <= low) return undefined;
  const reach = high * OVER_RANGE;
  const range = `${formatQuantity(low, quantity, unit)} to ${formatQuantity(high, quantity, unit)}`;
  return Math.abs(base) > reach ? `${tag} reads ${range}: this is out of it` : undefined;
}

function refuse(field: string, given: string, allowed: string): { readonly problems: readonly FieldProblem[] } {
  return { problems: [{ field, given, allowed }] };
}

/** The beginning of what was sent, with what is no letter left out. */
function shown(text: string): string {
  // eslint-disable-next-line no-control-regex -- what an instrument sends may be anything
  return cutText(text, MOST_SHOWN).replaceAll(/[\u0000-\u001f\ufffd]/gu, '·');
}
