import { useId, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';

interface LineFieldProps {
  readonly label: string;
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly onEnter?: () => void;
  readonly placeholder?: string;
  readonly longest: number;
}

/** A line of words under its label; Enter goes on. */
export function LineField({ label, text, onText, onEnter, placeholder = '', longest }: LineFieldProps): ReactElement {
  const id = useId();
  return (
    <div>
      <FormLabel htmlFor={id}>{label}</FormLabel>
      <FormControl
        id={id}
        maxLength={longest}
        autoComplete="off"
        placeholder={placeholder}
        value={text}
        onChange={(event) => onText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') onEnter?.();
        }}
      />
    </div>
  );
}
