import { useId, type ReactElement } from 'react';

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
      <label className="form-label" htmlFor={id}>
        {label}
      </label>
      <input
        id={id}
        className="form-control"
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
