import { ENDPOINTS } from '@jubb/wire';
import { useState, type FormEvent, type ReactElement } from 'react';
import { ask } from '../link/client.ts';
import { switchSession } from '../link/queries.ts';
import { Wrong } from '../kit/pieces.tsx';

export function Login(): ReactElement {
  const [login, setLogin] = useState('');
  const [password, setPassword] = useState('');
  const [error, setError] = useState<unknown>();
  const [busy, setBusy] = useState(false);
  const enter = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setBusy(true);
    try {
      const session = await ask(ENDPOINTS.session.logIn, { body: { login, password } });
      switchSession(session);
    } catch (refusal) {
      setError(refusal);
      setBusy(false);
    }
  };
  return (
    <main className="log-in">
      <h1 className="brand mb-0">Jubb</h1>
      <div className="rule" aria-hidden="true" />
      <p className="soft">The bench book of this shop. Who is working?</p>
      <form onSubmit={(event) => void enter(event)}>
        <label className="form-label" htmlFor="login">
          Log-in name
        </label>
        <input
          id="login"
          className="form-control mb-3"
          autoComplete="username"
          autoFocus
          required
          maxLength={60}
          value={login}
          onChange={(event) => setLogin(event.target.value)}
        />
        <label className="form-label" htmlFor="password">
          Password
        </label>
        <input
          id="password"
          className="form-control mb-3"
          type="password"
          autoComplete="current-password"
          required
          maxLength={200}
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
        <Wrong error={error} hide={['password']} />
        <button type="submit" className="btn btn-primary" disabled={busy}>
          Log in
        </button>
      </form>
    </main>
  );
}
