import { ENDPOINTS, PinBody, TabletBody } from '@jubb/wire';
import type { ReactElement } from 'react';
import { ask } from '../link/client.ts';
import { refresh } from '../link/queries.ts';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { Field } from '../kit/field.tsx';

/** Another name for this tablet. */
export function NameIt({ name, onDone }: { readonly name: string; readonly onDone: () => void }): ReactElement {
  const form = useAskForm({
    type: TabletBody,
    initial: { name },
    onSend: async (body) => {
      await ask(ENDPOINTS.tablet.name, { body });
      await Promise.all([refresh({ queryKey: ['tablet'] }), refresh({ queryKey: ['session'] })]);
      onDone();
    },
  });
  return (
    <Asking of={form} className="mt-2" act="Keep it">
      <Field of="tablet" name="name" label="This tablet is called" maxLength={60} autoFocus />
    </Asking>
  );
}

/** One's own PIN, once the password has shown whose it is. */
export function SetPin({ digits, onDone }: { readonly digits: number; readonly onDone: () => void }): ReactElement {
  const form = useAskForm({
    type: PinBody,
    initial: { pin: '', password: '' },
    onSend: async (body) => {
      await ask(ENDPOINTS.session.setPin, { body });
      onDone();
    },
  });
  return (
    <Asking of={form} act="Keep it">
      <Field
        of="my"
        name="pin"
        label={digits === 6 ? 'Six digits' : 'Four digits, or six'}
        className="num-field"
        inputMode="numeric"
        type="password"
        maxLength={6}
        autoFocus
      />
      <Field of="my" name="password" label="Your password" type="password" maxLength={200} autoComplete="current-password" />
    </Asking>
  );
}
