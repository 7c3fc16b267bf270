import type { BuildLine } from '@jubb/contract/job';
import { useState, type ReactElement } from 'react';
import { useHere } from '../job/use-job.ts';

/** A glance holds so many. */
const NEXT_SHOWN = 6;

/** The ledger the other way round, ticked as it goes in; marks are met at the moment they fall due. */
export function BuildList(): ReactElement | null {
  const { state } = useHere();
  const [showsAll, setShowsAll] = useState(false);
  const { build } = state;
  if (build.length === 0) return null;
  const pieces = build.reduce((sum, { count }) => sum + count, 0);
  const inNow = build.reduce((sum, line) => sum + line.inNow, 0);
  const next = build.find((line) => line.inNow < line.count);
  const open = build.filter((line) => line.inNow < line.count);
  const shown = showsAll ? build : open.slice(0, NEXT_SHOWN);
  return (
    <section className="mb-3" aria-label="Goes in again">
      <h2>
        Goes in again <span className="fig soft">{inNow === pieces ? `all ${pieces} are in` : `${inNow} of ${pieces} are in`}</span>
      </h2>
      {inNow > 0 ? null : (
        <p className="soft mb-1">Last off, first in. Tick each as it goes in; it stays exact over breaks and between two people.</p>
      )}
      <ol className="build-list">
        {shown.map((line) => (
          <Line key={line.entryId} line={line} isNext={line === next} />
        ))}
      </ol>
      {build.length > shown.length || showsAll ? (
        <button type="button" className="btn btn-quiet p-0 mt-1" aria-pressed={showsAll} onClick={() => setShowsAll(!showsAll)}>
          {showsAll ? 'Only what comes next' : `All ${build.length} lines`}
        </button>
      ) : null}
    </section>
  );
}

function Line({ line, isNext }: { readonly line: BuildLine; readonly isNext: boolean }): ReactElement {
  const { state, keep } = useHere();
  const { entryId, name, count, inNow, size, place, direction, tray, into, renewed, mark } = line;
  const left = count - inNow;
  const isMarkOpen = mark !== undefined && !mark.met;
  const goesIn = (pieces: number): void => keep({ kind: 'went-in', payload: { line: entryId, name, count: pieces } });
  const where = [place && `at ${place}`, into && `into ${into}`, direction, tray && `from tray ${tray}`].filter(Boolean).join(', ');
  return (
    <li className={left === 0 ? 'done' : isNext ? 'next' : ''}>
      <span className="fig fs-4">{left === 0 ? count : left}</span>
      <span>
        <b>{name}</b> {size ? <span className="fig">{size}</span> : null}{' '}
        {renewed === undefined ? null : <span className="brass">a new one: {renewed}</span>}
        {where ? <div className="soft">{where}</div> : null}
        {mark ? (
          <div>
            <b className={mark.met ? 'v-in' : 'brass'}>{mark.mark}</b>{' '}
            {mark.met ? (
              'lines up'
            ) : (
              <button
                type="button"
                className="btn btn-quiet p-0"
                aria-label={`It lines up, ${name}`}
                onClick={() => keep({ kind: 'mark-met', payload: { mark: entryId } })}
              >
                It lines up
              </button>
            )}
          </div>
        ) : null}
      </span>
      <span className="d-flex flex-wrap gap-1 justify-content-end">
        {left === 0 ? (
          <span className="v-in">in</span>
        ) : state.handedOver ? null : (
          <>
            {left > 1 ? (
              <button
                type="button"
                className="btn btn-plain"
                aria-label={`One in, ${name}`}
                disabled={isMarkOpen}
                onClick={() => goesIn(1)}
              >
                One in
              </button>
            ) : null}
            <button
              type="button"
              className={`btn btn-plain ${isNext ? 'on' : ''}`}
              aria-label={`${left > 1 ? `All ${left} in` : 'In'}, ${name}`}
              disabled={isMarkOpen}
              title={isMarkOpen ? 'The mark first' : undefined}
              onClick={() => goesIn(left)}
            >
              {left > 1 ? `All ${left} in` : 'In'}
            </button>
          </>
        )}
      </span>
    </li>
  );
}
