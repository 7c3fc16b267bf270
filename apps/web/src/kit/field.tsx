import type { ReactElement, ReactNode } from 'react';
import FormControl, { type FormControlProps } from 'react-bootstrap/FormControl';
import FormGroup from 'react-bootstrap/FormGroup';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import InputGroup from 'react-bootstrap/InputGroup';
import { get, useFormContext, type RegisterOptions } from 'react-hook-form';

interface FieldProps extends Omit<FormControlProps, 'id' | 'name' | 'isInvalid' | 'defaultValue' | 'value' | 'onChange' | 'size'> {
  /** Path of the value in the form. */
  readonly name: string;
  readonly label: ReactNode;
  /** Begins the id, where two forms of a page have a field of one name. */
  readonly of?: string;
  readonly maxLength?: number;
  readonly rows?: number;
  readonly inputMode?: 'decimal' | 'numeric';
  readonly list?: string;
  readonly max?: string;
  /** What stands behind it: %, EUR. */
  readonly unit?: string | undefined;
  /** Said below it while nothing is wrong. */
  readonly hint?: ReactNode;
  /** Class of the field around it. */
  readonly wrap?: string;
  readonly options?: readonly (readonly [value: string, words: string])[];
  readonly register?: RegisterOptions;
}

/** A field of a form: its label above, what is wrong with it below. */
export function Field({
  name,
  label,
  of,
  unit,
  hint,
  wrap = 'mb-2',
  options,
  register: rules = {},
  autoComplete = 'off',
  ...rest
}: FieldProps): ReactElement {
  const { register, formState } = useFormContext();
  const message = (get(formState.errors, name) as { readonly message?: string } | undefined)?.message;
  const id = [of, name.replaceAll('.', '-')].filter(Boolean).join('-');
  const told = {
    isInvalid: message !== undefined,
    'aria-invalid': message !== undefined,
    'aria-describedby': `${id}-problem`,
    ...register(name, rules),
  };
  const control = options ? (
    <FormSelect {...told} disabled={rest.disabled ?? false}>
      {options.map(([value, words]) => (
        <option key={value} value={value}>
          {words}
        </option>
      ))}
    </FormSelect>
  ) : (
    <FormControl {...rest} autoComplete={autoComplete} {...told} />
  );
  return (
    <FormGroup controlId={id} className={wrap}>
      <FormLabel>{label}</FormLabel>
      {unit === undefined ? (
        control
      ) : (
        <InputGroup>
          {control}
          <InputGroup.Text>{unit}</InputGroup.Text>
        </InputGroup>
      )}
      <div id={`${id}-problem`} className={message ? 'v-out' : 'soft'}>
        {message === undefined ? hint : [typeof label === 'string' ? label : '', message].filter(Boolean).join(' ')}
      </div>
    </FormGroup>
  );
}
