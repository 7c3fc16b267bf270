import type { ReactElement, ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { FormProvider, type FieldValues } from 'react-hook-form';
import type { AskForm } from './ask-form.ts';
import { Wrong, fieldWords } from './pieces.tsx';
import { Refusal } from '../link/client.ts';

interface AskingProps<V extends FieldValues> {
  readonly of: AskForm<V>;
  readonly className?: string;
  readonly style?: React.CSSProperties;
  /** What the key says that sends it; or the keys below what may be wrong, where there are others too. */
  readonly act?: string;
  readonly keys?: ReactNode;
  readonly children: ReactNode;
}

/** The form around its fields; what no field shows stands above its keys. */
export function Asking<V extends FieldValues>({ of, act, keys, children, ...rest }: AskingProps<V>): ReactElement {
  const { form, keep, busy, error, elsewhere } = of;
  // Fields show their own.
  const hide = error instanceof Refusal ? error.fields.map(({ field }) => field) : [];
  return (
    <FormProvider {...form}>
      <Form noValidate onSubmit={(event) => void keep(event)} {...rest}>
        {children}
        <Wrong error={error} hide={hide} />
        {elsewhere.length > 0 ? <p className="v-out">{elsewhere.map(fieldWords).join('; ')}</p> : null}
        {act === undefined ? (
          keys
        ) : (
          <Button type="submit" variant="primary" disabled={busy}>
            {act}
          </Button>
        )}
      </Form>
    </FormProvider>
  );
}
