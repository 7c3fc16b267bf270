import { useId, type ChangeEventHandler, type ReactElement, type ReactNode } from 'react';
import FormCheck from 'react-bootstrap/FormCheck';

interface TickProps {
  readonly type?: 'checkbox' | 'radio';
  /** Those of one name exclude each other. */
  readonly name?: string;
  readonly checked: boolean;
  readonly disabled?: boolean;
  readonly className?: string;
  readonly onChange: ChangeEventHandler<HTMLInputElement>;
  readonly children: ReactNode;
}

/** Something to tick, or one of several to pick; its words are pressed as well as its box. */
export function Tick({ children, ...rest }: TickProps): ReactElement {
  return <FormCheck id={useId()} label={children} {...rest} />;
}
