import type { MyLine, TodayClock } from '@jubb/book';
import type { ReactElement } from 'react';
import { Link } from 'react-router';
import { useClocks, useNow } from '../clocks/use-clocks.ts';
import { clockWords, dayOf, openToday, shopToday, todayAt } from '../kit/days.ts';

const HOUR_MS = 3_600_000;
/** A day in the shop, unless somebody is up earlier or later. */
const [OPENS, CLOSES] = [6, 19] as const;
const MOST = 8;
const [WIDE, HIGH] = [300, 14] as const;
const MINUTE_MS = 60_000;

interface DayProps {
  readonly lines: readonly MyLine[];
}

/** The day on a ruler: what each job does next, till when it waits, when it is promised. */
export function Day({ lines }: DayProps): ReactElement | null {
  const now = useNow(MINUTE_MS);
  const clocks = useClocks();
  const rows = lines.filter((line) => isToday(line, clocks)).slice(0, MOST);
  if (rows.length === 0) return <p className="soft">Nothing is promised for today, and nothing runs.</p>;
  const midnight = Date.parse(todayAt('00:00'));
  const hour = (now - midnight) / HOUR_MS;
  const open = openToday();
  const [from, to] = [Math.min(OPENS, Math.floor(hour)), Math.max(CLOSES, Math.ceil(hour))];
  const x = (ms: number): number => Math.max(0, Math.min(WIDE, ((ms - midnight) / HOUR_MS - from) * (WIDE / (to - from))));
  const hours = Array.from({ length: to - from + 1 }, (_, index) => from + index);
  return (
    <div className="day-ruler">
      <svg viewBox={`0 0 ${WIDE} 22`} width="100%" role="img" aria-label={`It is ${clockWords(new Date(now).toISOString())}`}>
        {open ? (
          <line x1={x(midnight + open[0] * HOUR_MS)} x2={x(midnight + open[1] * HOUR_MS)} y1={21} y2={21} className="day-open" />
        ) : null}
        {hours.map((one) => (
          <g key={one} transform={`translate(${x(midnight + one * HOUR_MS)} 0)`}>
            <line y1={14} y2={one % 2 === 0 ? 22 : 18} className="day-tick" />
            {one % 2 === 0 && one > from && one < to ? (
              <text y={11} textAnchor="middle" className="day-hour">
                {one}
              </text>
            ) : null}
          </g>
        ))}
        <path d={`M ${x(now) - 4} 12 h 8 l -4 8 z`} className="day-now" />
      </svg>
      <ul className="list-unstyled mb-0">
        {rows.map((line) => (
          <li key={line.jobId}>
            <Link to={`/jobs/${line.jobId}`}>
              <span className="fig">{line.number}</span> {line.hold ? line.hold.words : line.next}
            </Link>
            <Track line={line} clocks={clocks} now={now} x={x} />
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Something of it falls on this day: its promise, a wait, or what was done at it last. */
function isToday(line: MyLine, clocks: readonly TodayClock[]): boolean {
  const today = shopToday();
  return (
    dayOf(line.promise) <= today ||
    (line.last !== null && dayOf(line.last.at) === today) ||
    clocks.some(({ jobId, until }) => jobId === line.jobId && dayOf(until) === today)
  );
}

interface TrackProps {
  readonly line: MyLine;
  readonly clocks: readonly TodayClock[];
  readonly now: number;
  readonly x: (ms: number) => number;
}

function Track({ line, clocks, now, x }: TrackProps): ReactElement {
  const today = shopToday();
  const waits = clocks.filter(({ jobId, until }) => jobId === line.jobId && Date.parse(until) > now);
  const until = line.waits?.until === undefined ? undefined : Date.parse(line.waits.until);
  const ends = [...new Set([...waits.map((clock) => Date.parse(clock.until)), ...(until === undefined ? [] : [until])])].filter(
    (ms) => ms > now,
  );
  const promise = Date.parse(line.promise);
  const isLate = promise < now;
  const words = [
    line.last && dayOf(line.last.at) === today ? `last kept ${clockWords(line.last.at)}` : '',
    ...ends.map((ms) => `waits until ${clockWords(new Date(ms).toISOString())}`),
    isLate ? 'promise is past' : dayOf(line.promise) === today ? `promised ${clockWords(line.promise)}` : '',
  ].filter(Boolean);
  return (
    <svg viewBox={`0 0 ${WIDE} ${HIGH}`} width="100%" role="img" aria-label={words.join(', ')}>
      <line x1={0} x2={WIDE} y1={HIGH / 2} y2={HIGH / 2} className="day-track" />
      {ends.map((ms) => (
        <rect key={ms} x={x(now)} width={Math.max(2, x(ms) - x(now))} y={3} height={HIGH - 6} className="day-wait" />
      ))}
      {line.last && dayOf(line.last.at) === today ? (
        <circle cx={x(Date.parse(line.last.at))} cy={HIGH / 2} r={3.5} className="day-last" />
      ) : null}
      <line x1={x(now)} x2={x(now)} y1={0} y2={HIGH} className="day-line" />
      {dayOf(line.promise) === today ? (
        <path
          d={`M ${x(promise)} 0 v ${HIGH} M ${x(promise)} 1 h -9 v 6 h 9`}
          className={isLate ? 'day-promise day-late' : 'day-promise'}
        />
      ) : isLate ? (
        <text x={0} y={HIGH - 3} className="day-late">
          late
        </text>
      ) : null}
    </svg>
  );
}
