import { ENDPOINTS } from '@jubb/wire';
import { useState, type FormEvent, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import Button from 'react-bootstrap/Button';
import { Refusal, ask } from '../link/client.ts';
import { switchSession } from '../link/queries.ts';
import { Wrong } from '../kit/pieces.tsx';
import { ByPin } from './by-pin.tsx';

export function Login(): ReactElement {
  const [login, setLogin] = useState('');
  const [password, setPassword] = useState('');
  const [code, setCode] = useState<string>();
  const [error, setError] = useState<unknown>();
  const [busy, setBusy] = useState(false);
  const enter = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setBusy(true);
    try {
      const session = await ask(ENDPOINTS.session.logIn, { body: { login, password, ...(code?.trim() ? { code: code.trim() } : {}) } });
      switchSession(session);
    } catch (refusal) {
      const isAsked = refusal instanceof Refusal && refusal.problem.code === 'second-factor';
      if (isAsked) setCode('');
      // The first time the code is asked for, nothing is wrong.
      setError(isAsked && code === undefined ? undefined : refusal);
      setBusy(false);
    }
  };
  return (
    <main className="log-in">
      <h1 className="brand mb-0">Jubb</h1>
      <div className="rule" aria-hidden="true" />
      <p className="soft">The bench book of this shop. Who is working?</p>
      <form onSubmit={(event) => void enter(event)}>
        <FormLabel htmlFor="login">Log-in name</FormLabel>
        <FormControl
          id="login"
          className="mb-3"
          autoComplete="username"
          autoFocus
          required
          maxLength={60}
          value={login}
          onChange={(event) => setLogin(event.target.value)}
        />
        <FormLabel htmlFor="password">Password</FormLabel>
        <FormControl
          id="password"
          className="mb-3"
          type="password"
          autoComplete="current-password"
          required
          maxLength={200}
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
        {code === undefined ? null : (
          <>
            <FormLabel htmlFor="code">Code from your telephone</FormLabel>
            <FormControl
              id="code"
              className="mb-3 num-field"
              inputMode="numeric"
              autoComplete="one-time-code"
              autoFocus
              required
              maxLength={6}
              value={code}
              onChange={(event) => setCode(event.target.value)}
            />
          </>
        )}
        <Wrong error={error} hide={['password']} />
        <Button type="submit" variant="primary" disabled={busy}>
          Log in
        </Button>
      </form>
      <ByPin />
    </main>
  );
}
