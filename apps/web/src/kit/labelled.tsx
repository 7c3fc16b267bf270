import type { ReactElement, ReactNode } from 'react';

/** A field with its label above it. */
export function Labelled({
  id,
  label,
  children,
}: {
  readonly id: string;
  readonly label: string;
  readonly children: ReactNode;
}): ReactElement {
  return (
    <div className="mb-2">
      <label className="form-label" htmlFor={id}>
        {label}
      </label>
      {children}
    </div>
  );
}
