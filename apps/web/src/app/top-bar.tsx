import { KeyCap } from '../kit/key-cap.tsx';
import { ENDPOINTS } from '@jubb/wire';
import { Menu, Search } from 'lucide-react';
import { useEffect, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useParams } from 'react-router';
import { ask } from '../link/client.ts';
import { switchSession, useSession, useToday } from '../link/queries.ts';
import { Drawer } from '../kit/drawer.ts';
import { LIGHTS, UNIT_CHOICES, useLight, useUnitChoice } from '../kit/prefs.ts';
import { useLinkWords } from '../link/live.ts';
import { PersonKey } from './person-key.tsx';
import { Places } from './places.tsx';

/** Shop, find, units, light, who is working, and the link; on a narrow screen all but the last two stand in a drawer. */
export function TopBar({ onFind }: { readonly onFind: () => void }): ReactElement {
  const { data: session } = useSession();
  const { data: today } = useToday();
  const { id } = useParams();
  const link = useLinkWords();
  const [isDrawer, setDrawer] = useState(false);
  const close = (): void => setDrawer(false);
  const line = today && [...today.now, ...today.waiting].find(({ jobId }) => jobId === id);
  return (
    <header className="topbar">
      <Button variant="quiet" className="menu-key" aria-label="Menu" aria-expanded={isDrawer} onClick={() => setDrawer(true)}>
        <Menu size={24} aria-hidden="true" />
      </Button>
      <Link to="/" className="brand">
        Jubb
      </Link>
      {line ? (
        <span className="bar-job">
          <b className="fig">{line.number}</b> {line.unit}
        </span>
      ) : null}
      <Link to="/shop" className="soft wide-only">
        {session?.shop.name}
      </Link>
      <Button variant="plain" className="findbox wide-only" onClick={onFind}>
        Find a job, sheet, tool, working <KeyCap of="find" />
      </Button>
      <span className="push" />
      <span className="wide-only">
        <Picks />
      </span>
      <PersonKey />
      <Button variant="quiet" className="wide-only" onClick={() => void logOut()}>
        Log out
      </Button>
      <LinkState words={link} />
      <Drawer show={isDrawer} onHide={close} placement="start" aria-label="Menu" restoreFocus>
        <Drawer.Header closeButton>
          <Drawer.Title as="h2">{session?.shop.name}</Drawer.Title>
        </Drawer.Header>
        <Drawer.Body>
          <Button
            variant="plain"
            className="w-100 mb-2"
            onClick={() => {
              close();
              onFind();
            }}
          >
            <Search size={20} aria-hidden="true" /> Find
          </Button>
          <Places onGo={close} />
          <p className="mt-3 mb-1">
            <Link to="/shop" onClick={close}>
              The shop
            </Link>
          </p>
          <Picks />
          <Button variant="quiet" onClick={() => void logOut()}>
            Log out
          </Button>
        </Drawer.Body>
      </Drawer>
    </header>
  );
}

/** Units and light, as this device has them. */
function Picks(): ReactElement {
  const [units, setUnits] = useUnitChoice();
  const [light, setLight] = useLight();
  return (
    <>
      <Pick name="Units" chosen={units} choices={UNIT_CHOICES} onChoose={setUnits} />
      <Pick name="Light" chosen={light} choices={LIGHTS} onChoose={setLight} />
    </>
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
