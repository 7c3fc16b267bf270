import type { TodayLine } from '@jubb/book';
import { STAGE_NAMES } from '@jubb/sheet';
import { Suspense, lazy, useCallback, useState, useSyncExternalStore, type ReactElement } from 'react';
import { Link, Outlet, useParams } from 'react-router';
import { useToday } from '../link/queries.ts';
import { Clocks } from '../clocks/clocks.tsx';
import { useKeys } from '../kit/keys.ts';
import { lastUndoable, onUndoable } from '../kit/undo.ts';
import { useServerEvents } from '../link/live.ts';
import { Places } from './places.tsx';
import { TopBar, useFindKey } from './top-bar.tsx';

// Loaded when it is first asked for.
const Find = lazy(async () => ({ default: (await import('./find.tsx')).Find }));

const UndoToast = lazy(async () => ({ default: (await import('../kit/undo-toast.tsx')).UndoToast }));
const KeysHelp = lazy(async () => ({ default: (await import('./keys-help.tsx')).KeysHelp }));

/** Top bar, rail of the jobs on the benches, places, and the page. */
export function Frame(): ReactElement {
  useServerEvents();
  const [finding, setFinding] = useState(false);
  const openFind = useCallback(() => setFinding(true), []);
  useFindKey(openFind);
  const [isHelp, setHelp] = useState(false);
  const canUndo = useSyncExternalStore(onUndoable, lastUndoable) !== undefined;
  useKeys({ help: () => setHelp(true) });
  return (
    <div className="frame">
      <a className="skip" href="#page">
        To the page
      </a>
      <TopBar onFind={openFind} />
      <div className="rail">
        <Benches />
        <Clocks />
        <Places />
      </div>
      <main id="page" className="page" tabIndex={-1}>
        <Outlet />
      </main>
      <Suspense>{canUndo ? <UndoToast /> : null}</Suspense>
      {isHelp ? (
        <Suspense>
          <KeysHelp onClose={() => setHelp(false)} />
        </Suspense>
      ) : null}
      {finding ? (
        <Suspense>
          <Find onClose={() => setFinding(false)} />
        </Suspense>
      ) : null}
    </div>
  );
}

const MOST_TAGS = 5;

function Benches(): ReactElement | null {
  const { data: today } = useToday();
  const { id } = useParams();
  if (!today) return null;
  return (
    <nav className="tags d-grid gap-2" aria-label="Jobs on the benches">
      {[...today.now, ...today.waiting].slice(0, MOST_TAGS).map((line) => (
        <Link
          key={line.jobId}
          to={`/jobs/${line.jobId}`}
          className={`job-tag ${line.jobId === id ? 'here' : ''} ${line.hold ? 'waits' : ''}`}
          aria-current={line.jobId === id ? 'page' : undefined}
        >
          <b>
            {line.number} · {line.hold ? 'Hold' : STAGE_NAMES[line.stage]}
          </b>
          <span className="tag-words">{tagWords(line)}</span>
          {line.openEnds.length > 0 ? (
            line.jobId === id ? (
              <ul className="tag-ends" aria-label="Open ends">
                {line.openEnds.map((end) => (
                  <li key={end}>{end}</li>
                ))}
              </ul>
            ) : (
              <span className="tag-words">
                {line.openEnds.length} open {line.openEnds.length === 1 ? 'end' : 'ends'}
              </span>
            )
          ) : null}
        </Link>
      ))}
    </nav>
  );
}

function tagWords(line: TodayLine): string {
  return line.hold ? `${line.unit}. ${line.hold.words}` : `${line.unit}. ${line.next}`;
}
