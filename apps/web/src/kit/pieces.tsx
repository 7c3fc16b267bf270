import { sourceWords, type SheetDocument, type Sourced } from '@jubb/sheet';
import type { FieldProblem } from '@jubb/wire';
import { Fragment, useEffect, type ReactElement, type ReactNode } from 'react';
import Alert from 'react-bootstrap/Alert';
import Spinner from 'react-bootstrap/Spinner';
import { LinkDown, Refusal } from '../link/client.ts';

interface CareProps {
  readonly title?: string | undefined;
  /** An alert is read out at once. */
  readonly role?: 'note' | 'alert';
  readonly children?: ReactNode;
}

/** A caution: the word first, before the act. */
export function Care({ title = 'Care', role = 'note', children }: CareProps): ReactElement {
  return (
    <Alert variant="care" className="care" role={role} transition={false}>
      <b>{title}</b>
      {children}
    </Alert>
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
    <Care role="alert" title={error instanceof LinkDown ? 'No link' : 'Not kept'}>
      {error instanceof Error ? error.message : String(error)}
      {fields.length > 0 ? (
        <ul className="mb-0">
          {fields.map((problem) => (
            <li key={`${problem.field}${problem.allowed}`}>{fieldWords(problem)}</li>
          ))}
        </ul>
      ) : null}
    </Care>
  );
}

export function fieldWords({ field, given, allowed, line }: FieldProblem): string {
  const where = line === undefined ? field : `line ${line}, ${field}`;
  return field === 'job' ? allowed : `${where}${given === undefined || allowed.includes(given) ? '' : ` (given: ${given})`}: ${allowed}`;
}

export function Loading({ what }: { readonly what: string }): ReactElement {
  return (
    <p className="soft" role="status">
      <Spinner animation="border" size="sm" aria-hidden="true" /> Looking up {what} …
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
