import { ENDPOINTS, PinBody, SecondBody, SecondOffBody, TabletBody, type SecondView } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import type { ReactElement } from 'react';
import { Loading, Wrong } from '../kit/pieces.tsx';
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

/** One's own second factor: begun with a code of the telephone, taken off with the password. */
export function SecondFactor({ onDone }: { readonly onDone: () => void }): ReactElement {
  // A fresh secret each time it is opened; one that was seen and not taken is worth nothing.
  const { data, error } = useQuery({ queryKey: ['second'], queryFn: () => ask(ENDPOINTS.session.second), staleTime: Infinity, gcTime: 0 });
  if (!data) return error ? <Wrong error={error} /> : <Loading what="your second factor" />;
  return data.isSet ? <SecondOff onDone={onDone} /> : <SecondOn view={data} onDone={onDone} />;
}

function SecondOn({ view, onDone }: { readonly view: Extract<SecondView, { isSet: false }>; readonly onDone: () => void }): ReactElement {
  const form = useAskForm({
    type: SecondBody,
    initial: { secret: view.secret, code: '', password: '' },
    onSend: async (body) => {
      await ask(ENDPOINTS.session.setSecond, { body });
      onDone();
    },
  });
  return (
    <>
      <p>
        From then on your password alone opens nothing: a code is asked for beside it. At tablets that know you the PIN does as before. Scan
        this with any app for one-time codes.
      </p>
      <img
        className="d-block mx-auto mb-2"
        width={200}
        height={200}
        alt="Code to scan with the telephone"
        src={`data:image/svg+xml,${encodeURIComponent(view.picture)}`}
      />
      <p className="soft">
        Or type it there: <span className="fig text-break">{view.secret}</span>
      </p>
      <Asking of={form} act="Keep it">
        <Field
          of="my"
          name="code"
          label="The six digits it shows"
          className="num-field"
          inputMode="numeric"
          autoComplete="one-time-code"
          maxLength={6}
          autoFocus
        />
        <Field of="my" name="password" label="Your password" type="password" maxLength={200} autoComplete="current-password" />
      </Asking>
    </>
  );
}

function SecondOff({ onDone }: { readonly onDone: () => void }): ReactElement {
  const form = useAskForm({
    type: SecondOffBody,
    initial: { password: '' },
    onSend: async (body) => {
      await ask(ENDPOINTS.session.dropSecond, { body });
      onDone();
    },
  });
  return (
    <>
      <p>Your password wants a code of your telephone beside it. Without it the password alone will do again.</p>
      <Asking of={form} act="Take it off">
        <Field of="my" name="password" label="Your password" type="password" maxLength={200} autoComplete="current-password" autoFocus />
      </Asking>
    </>
  );
}
