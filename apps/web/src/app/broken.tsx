import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import type { FallbackProps } from 'react-error-boundary';
import { storedDrafts, writeStored } from '../kit/prefs.ts';

const IDS = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/gu;

/**
 * A page that fell over. What is kept is safe; what was half typed on it may be the cause, so it can be
 * taken out as a file and let go of, and never holds the page shut.
 */
export function Broken({ error }: FallbackProps): ReactElement {
  const [isAsked, setAsked] = useState(false);
  const ids = location.pathname.match(IDS) ?? [];
  const drafts = storedDrafts().filter(([name]) => ids.length === 0 || ids.some((id) => name.includes(id)));
  const letGo = (): void => {
    for (const [name] of drafts) writeStored(name, undefined);
    location.reload();
  };
  return (
    <section className="work">
      <h1>This page fell over</h1>
      <p>Nothing that was kept is lost. Load it again; Today and the other places go on working.</p>
      <div className="keys">
        <Button onClick={() => location.reload()}>Load it again</Button>
        <Button variant="plain" href="/">
          Today
        </Button>
      </div>
      {drafts.length > 0 ? (
        <>
          <p className="mt-3">
            Something is half typed here. If the page falls over again, that may be why: take a copy of it, then let go of it.
          </p>
          <div className="keys">
            <a
              className="btn btn-plain"
              download="half-typed.json"
              href={`data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(Object.fromEntries(drafts), null, 1))}`}
            >
              Take a copy
            </a>
            {isAsked ? (
              <Button variant="plain" className="v-out" onClick={letGo}>
                Yes, let go of what is half typed
              </Button>
            ) : (
              <Button variant="plain" onClick={() => setAsked(true)}>
                Let go of what is half typed
              </Button>
            )}
          </div>
        </>
      ) : null}
      <p className="soft mt-3">{error instanceof Error ? `What it said: ${error.message}` : null}</p>
    </section>
  );
}
