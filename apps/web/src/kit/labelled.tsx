import type { ReactElement, ReactNode } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';

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
      <FormLabel htmlFor={id}>{label}</FormLabel>
      {children}
    </div>
  );
}
