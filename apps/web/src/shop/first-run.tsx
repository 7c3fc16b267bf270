import { ENDPOINTS, FirstRunBody } from '@jubb/wire';
import type { ReactElement } from 'react';
import { ask } from '../link/client.ts';
import { switchSession } from '../link/queries.ts';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { Field } from '../kit/field.tsx';

/** A shop that nobody works in yet: its name, and its first foreman. */
export function FirstRun(): ReactElement {
  const form = useAskForm({
    type: FirstRunBody,
    initial: {
      shop: '',
      zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      currency: 'EUR',
      name: '',
      login: '',
      password: '',
    },
    onSend: async (body) => {
      await ask(ENDPOINTS.firstRun.open, { body });
      // What comes next is there, and not on a Today with nothing in it.
      history.replaceState(null, '', '/shop/begin');
      switchSession(await ask(ENDPOINTS.session.logIn, { body: { login: body.login, password: body.password } }));
    },
  });
  return (
    <main className="log-in">
      <h1 className="brand mb-0">Jubb</h1>
      <div className="rule" aria-hidden="true" />
      <p className="soft">Nobody works here yet. You will be the foreman.</p>
      <Asking of={form} act="Open the shop">
        <Field name="shop" label="Name of the shop" maxLength={200} autoFocus />
        <Field name="zone" label="Time zone" maxLength={200} />
        <Field name="currency" label="Currency" maxLength={200} />
        <Field name="name" label="Your name" maxLength={200} />
        <Field name="login" label="Log-in name" maxLength={200} autoComplete="username" />
        <Field name="password" label="Password" maxLength={200} type="password" autoComplete="new-password" />
      </Asking>
    </main>
  );
}
