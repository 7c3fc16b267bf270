import type { ReactElement, ReactNode } from 'react';
import Form from 'react-bootstrap/Form';
import { FormProvider, type FieldValues } from 'react-hook-form';
import type { AskForm } from './ask-form.ts';
import { Wrong, fieldWords } from './pieces.tsx';
import { Refusal } from '../link/client.ts';

interface AskingProps<V extends FieldValues> {
  readonly of: AskForm<V>;
  readonly className?: string;
  readonly style?: React.CSSProperties;
  /** Keys below what may be wrong. */
  readonly keys?: ReactNode;
  readonly children: ReactNode;
}

/** The form around its fields; what no field shows stands above its keys. */
export function Asking<V extends FieldValues>({ of, keys, children, ...rest }: AskingProps<V>): ReactElement {
  const { form, keep, error, elsewhere } = of;
  // Fields show their own.
  const hide = error instanceof Refusal ? error.fields.map(({ field }) => field) : [];
  return (
    <FormProvider {...form}>
      <Form noValidate onSubmit={(event) => void keep(event)} {...rest}>
        {children}
        <Wrong error={error} hide={hide} />
        {elsewhere.length > 0 ? <p className="v-out">{elsewhere.map(fieldWords).join('; ')}</p> : null}
        {keys}
      </Form>
    </FormProvider>
  );
}
