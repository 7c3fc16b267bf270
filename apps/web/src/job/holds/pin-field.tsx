import { useId, type ReactElement } from 'react';
import FormControl from 'react-bootstrap/FormControl';
import FormLabel from 'react-bootstrap/FormLabel';

interface PinFieldProps {
  readonly of: string;
  readonly pin: string;
  readonly onPin: (pin: string) => void;
  readonly onEnter: () => void;
}

/** The PIN of somebody who stands beside; never kept on the device. */
export function PinField({ of, pin, onPin, onEnter }: PinFieldProps): ReactElement {
  const id = useId();
  return (
    <div>
      <FormLabel htmlFor={id}>PIN of {of}</FormLabel>
      <FormControl
        id={id}
        type="password"
        inputMode="numeric"
        autoComplete="off"
        className="pin-field"
        maxLength={8}
        value={pin}
        onChange={(event) => onPin(event.target.value.replace(/\D/gu, ''))}
        onKeyDown={(event) => {
          if (event.key === 'Enter') onEnter();
        }}
      />
    </div>
  );
}
