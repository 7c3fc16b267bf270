import { validated } from '@jubb/sheet/given';
import { ENDPOINTS, FirstRunBody } from '@jubb/wire';
import { useState, type FormEvent, type ReactElement } from 'react';
import { Refusal, ask } from '../link/client.ts';
import { switchSession } from '../link/queries.ts';
import { Wrong } from '../kit/pieces.tsx';

type Values = Readonly<Record<keyof FirstRunBody, string>>;

const FIELDS: readonly (readonly [name: keyof FirstRunBody, label: string, rest?: React.InputHTMLAttributes<HTMLInputElement>])[] = [
  ['shop', 'Name of the shop', { autoFocus: true }],
  ['zone', 'Time zone'],
  ['currency', 'Currency'],
  ['name', 'Your name'],
  ['login', 'Log-in name', { autoComplete: 'username' }],
  ['password', 'Password', { type: 'password', autoComplete: 'new-password' }],
];

/** A shop that nobody works in yet: its name, and its first foreman. */
export function FirstRun(): ReactElement {
  const [values, setValues] = useState<Values>({
    shop: '',
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    currency: 'EUR',
    name: '',
    login: '',
    password: '',
  });
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  const [error, setError] = useState<unknown>();
  const open = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const { issues } = validated(FirstRunBody, values);
    setProblems(Object.fromEntries(issues.map(({ path, message }) => [path, message])));
    if (issues.length > 0) return;
    try {
      await ask(ENDPOINTS.firstRun.open, { body: values });
      switchSession(await ask(ENDPOINTS.session.logIn, { body: { login: values.login, password: values.password } }));
    } catch (refusal) {
      setError(refusal);
      if (refusal instanceof Refusal) setProblems(Object.fromEntries(refusal.fields.map(({ field, allowed }) => [field, allowed])));
    }
  };
  return (
    <main className="log-in">
      <h1 className="brand mb-0">Jubb</h1>
      <div className="rule" aria-hidden="true" />
      <p className="soft">Nobody works here yet. You will be the foreman.</p>
      <form noValidate onSubmit={(event) => void open(event)}>
        {FIELDS.map(([name, label, rest]) => (
          <div className="mb-2" key={name}>
            <label className="form-label" htmlFor={name}>
              {label}
            </label>
            <input
              id={name}
              className={`form-control ${problems[name] ? 'is-invalid' : ''}`}
              maxLength={200}
              aria-invalid={problems[name] !== undefined}
              aria-describedby={`${name}-problem`}
              value={values[name]}
              onChange={(event) => setValues({ ...values, [name]: event.target.value })}
              {...rest}
            />
            <div id={`${name}-problem`} className="v-out">
              {problems[name] ? `${label} ${problems[name]}` : null}
            </div>
          </div>
        ))}
        <Wrong error={error} hide={FIELDS.map(([name]) => name)} />
        <button type="submit" className="btn btn-primary mt-2">
          Open the shop
        </button>
      </form>
    </main>
  );
}
