import { LIST_NAMES, type Difference } from '@jubb/sheet';
import type { ReactElement, ReactNode } from 'react';

/** Differences of two revisions in the trade's words, list by list. */
export function DifferenceList({
  differences,
  beside,
}: {
  readonly differences: readonly Difference[];
  readonly beside?: (difference: Difference) => ReactNode;
}): ReactElement {
  if (differences.length === 0) return <p>They say the same.</p>;
  const lists = [...new Set(differences.map(({ list }) => list))];
  return (
    <>
      {lists.map((list) => (
        <section key={list} className="mb-3">
          <h2 className="fs-5">{list === 'sheet' ? 'The sheet itself' : LIST_NAMES[list]}</h2>
          <ul className="differences">
            {differences
              .filter((difference) => difference.list === list)
              .map((difference) => (
                <li key={`${difference.ref}${difference.kind}`}>
                  <span className={`diff-mark diff-${difference.kind}`} aria-label={difference.kind}>
                    {{ added: '+', removed: '−', changed: '~', moved: '↕' }[difference.kind]}
                  </span>
                  {difference.changes.length > 0 ? (
                    <span>
                      <b>{difference.name}</b>
                      {difference.changes.map(({ path, label, from, to }) => (
                        <span key={path} className="change">
                          {label}: {from === '' ? null : <del>{from}</del>} {to === '' ? <em>taken out</em> : <ins>{to}</ins>}
                        </span>
                      ))}
                    </span>
                  ) : (
                    <span>{difference.say}</span>
                  )}
                  {beside?.(difference)}
                </li>
              ))}
          </ul>
        </section>
      ))}
    </>
  );
}
