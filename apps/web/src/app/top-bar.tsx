import { KeyCap } from '../kit/key-cap.tsx';
import { ENDPOINTS } from '@jubb/wire';
import { useEffect, type ReactElement } from 'react';
import { Link } from 'react-router';
import { ask } from '../link/client.ts';
import { switchSession, useSession } from '../link/queries.ts';
import { LIGHTS, UNIT_CHOICES, useLight, useUnitChoice } from '../kit/prefs.ts';
import { useLinkWords } from '../link/live.ts';
import { PersonKey } from './person-key.tsx';

export function TopBar({ onFind }: { readonly onFind: () => void }): ReactElement {
  const { data: session } = useSession();
  const [units, setUnits] = useUnitChoice();
  const [light, setLight] = useLight();
  const link = useLinkWords();
  return (
    <header className="topbar">
      <Link to="/" className="brand">
        Jubb
      </Link>
      <Link to="/shop" className="soft">
        {session?.shop.name}
      </Link>
      <button type="button" className="btn btn-plain findbox" onClick={onFind}>
        Find a job, sheet, tool, working <KeyCap of="find" />
      </button>
      <span className="push" />
      <Pick name="Units" chosen={units} choices={UNIT_CHOICES} onChoose={setUnits} />
      <Pick name="Light" chosen={light} choices={LIGHTS} onChoose={setLight} />
      <PersonKey />
      <button type="button" className="btn btn-quiet" onClick={() => void logOut()}>
        Log out
      </button>
      <LinkState words={link} />
    </header>
  );
}

/** Whether what is done here reaches the server; said aloud when it changes. */
export function LinkState({ words }: { readonly words: string }): ReactElement {
  return (
    <span className={words === 'live' ? 'soft' : 'brass'} role="status">
      {words}
    </span>
  );
}

interface PickProps<T extends string> {
  readonly name: string;
  readonly chosen: T;
  readonly choices: readonly T[];
  readonly onChoose: (choice: T) => void;
}

function Pick<T extends string>({ name, chosen, choices, onChoose }: PickProps<T>): ReactElement {
  return (
    <select
      className="quiet-select"
      aria-label={name}
      value={chosen}
      onChange={(event) => onChoose(choices.find((choice) => choice === event.target.value) ?? chosen)}
    >
      {choices.map((choice) => (
        <option key={choice} value={choice}>
          {choice}
        </option>
      ))}
    </select>
  );
}

async function logOut(): Promise<void> {
  await ask(ENDPOINTS.session.logOut).catch(() => undefined);
  switchSession(null);
}

/** Ctrl or Cmd with K, anywhere. */
export function useFindKey(onOpen: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'k') return;
      event.preventDefault();
      onOpen();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [onOpen]);
}
