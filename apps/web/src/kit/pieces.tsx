import { sourceWords, type SheetDocument, type Sourced } from '@jubb/sheet';
import type { FieldProblem } from '@jubb/wire';
import { Fragment, useEffect, type ReactElement, type ReactNode } from 'react';
import { LinkDown, Refusal } from '../link/client.ts';

/** A caution: the word first, before the act. */
export function Care({ title = 'Care', children }: { readonly title?: string; readonly children: ReactNode }): ReactElement {
  return (
    <div className="care" role="note">
      <b>{title}</b>
      {children}
    </div>
  );
}

/** Where a value comes from, beside the value. */
export function Trust({
  of,
  documents,
  also = [],
}: {
  readonly of: Sourced;
  readonly documents: readonly SheetDocument[];
  /** What else bears on the value: dry, full torque. */
  readonly also?: readonly string[];
}): ReactElement {
  return (
    <span>
      <span className={`trust trust-${of.trust}`}>{of.trust}</span>{' '}
      <span className="soft">
        {[...sourceWords(of, documents), ...also].map((words, index) => (
          <Fragment key={words}>
            {index > 0 ? ', ' : null}
            <span className={index > 0 ? 'text-nowrap' : undefined}>{words}</span>
          </Fragment>
        ))}
      </span>
    </span>
  );
}

/** What went wrong, in words; field problems that no field shows are listed. */
export function Wrong({ error, hide = [] }: { readonly error: unknown; readonly hide?: readonly string[] }): ReactElement | null {
  if (!error) return null;
  const fields = error instanceof Refusal ? error.fields.filter((problem) => !hide.includes(problem.field)) : [];
  return (
    <div className="care" role="alert">
      <b>{error instanceof LinkDown ? 'No link' : 'Not kept'}</b>
      {error instanceof Error ? error.message : String(error)}
      {fields.length > 0 ? (
        <ul className="mb-0">
          {fields.map((problem) => (
            <li key={`${problem.field}${problem.allowed}`}>{fieldWords(problem)}</li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}

export function fieldWords({ field, given, allowed, line }: FieldProblem): string {
  const where = line === undefined ? field : `line ${line}, ${field}`;
  return field === 'job' ? allowed : `${where}${given === undefined || allowed.includes(given) ? '' : ` (given: ${given})`}: ${allowed}`;
}

export function Loading({ what }: { readonly what: string }): ReactElement {
  return (
    <p className="soft" role="status">
      Looking up {what} …
    </p>
  );
}

/** The heading of a page, and the name of its tab. */
export function Title({ children, sub }: { readonly children: ReactNode; readonly sub?: ReactNode }): ReactElement {
  const text = typeof children === 'string' ? children : undefined;
  useEffect(() => {
    if (text) document.title = `${text} · Jubb`;
  }, [text]);
  return (
    <header className="mb-3">
      <h1 className="mb-1">{children}</h1>
      {sub ? <div className="soft">{sub}</div> : null}
    </header>
  );
}
