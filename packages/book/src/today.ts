import { kindRefusal, type Bench } from './benches.js';
import type { TodayLine, TodayTold, TodayView } from './views.js';

/** So long after an entry its maker is still at it. */
const AT_IT_MS = 15 * 60_000;

/** A line as one person sees it. */
export interface MyLine extends TodayLine {
  /** Who else recorded something on it a moment ago. */
  readonly with: string | null;
  /** The bench that its unit stands at. */
  readonly at: string | null;
}

/** What can go on and what waits, as one person sees it: what is in their hands comes first, the rest by its promise. */
export interface MyToday extends Omit<TodayView, 'lines'> {
  readonly now: readonly MyLine[];
  readonly waiting: readonly MyLine[];
}

/** `now` in ms since 1970; what takes a machine that is out of use, or for others, waits. */
export function myToday({ lines, ...rest }: TodayView, me: string, now: number, benches: readonly Bench[] = []): MyToday {
  const isMine = ({ last }: TodayLine): boolean => last?.personId === me;
  const mine = lines
    .toSorted((one, other) => Number(isMine(other)) - Number(isMine(one)))
    .map((line): MyLine => {
      const isOthers = line.last !== null && !isMine(line) && now - Date.parse(line.last.at) < AT_IT_MS;
      const at = benches.find(({ jobs }) => jobs.some(({ id }) => id === line.jobId))?.name ?? null;
      const refusal = line.bench && kindRefusal(line.bench, benches, me);
      const held = refusal === undefined ? {} : { waits: { words: refusal } };
      return { ...line, ...held, with: isOthers ? (line.last?.name ?? null) : null, at };
    });
  return { ...rest, now: mine.filter(canGoOn), waiting: mine.filter((line) => !canGoOn(line)) };
}

/** Something of it can be done, if not the next act then another. */
function canGoOn({ waits, also }: TodayLine): boolean {
  return waits === null || also.length > 0;
}

/** The day with what was told since: lines and clocks of some jobs anew, others gone. What is told twice or late changes nothing. */
export function withTold(view: TodayView, { lines, clocks, gone }: TodayTold): TodayView {
  const news = lines.filter((line) => !isOlder(line, view.lines));
  const moved = new Set([...news.map(({ jobId }) => jobId), ...gone]);
  const rest = view.lines.filter(({ jobId }) => !moved.has(jobId));
  return {
    ...view,
    lines: [...rest, ...news].toSorted((one, other) => one.promise.localeCompare(other.promise) || one.number - other.number),
    clocks: [...view.clocks.filter(({ jobId }) => !moved.has(jobId)), ...clocks.filter(({ jobId }) => moved.has(jobId))],
  };
}

function isOlder(line: TodayLine, known: readonly TodayLine[]): boolean {
  return known.some(({ jobId, seq, version }) => jobId === line.jobId && (seq > line.seq || version > line.version));
}
