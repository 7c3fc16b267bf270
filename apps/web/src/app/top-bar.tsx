import { KeyCap } from '../kit/key-cap.tsx';
import { Menu } from 'lucide-react';
import { Suspense, lazy, useEffect, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useParams } from 'react-router';
import { useSession, useToday } from '../link/queries.ts';
import { useLinkWords } from '../link/live.ts';
import { PersonKey } from './person-key.tsx';
import { Picks, logOut } from './picks.tsx';

// A narrow screen alone has it.
const MenuDrawer = lazy(async () => ({ default: (await import('./menu-drawer.tsx')).MenuDrawer }));

/** Shop, find, units, light, who is working, and the link; on a narrow screen all but the last two stand in a drawer. */
export function TopBar({ onFind }: { readonly onFind: () => void }): ReactElement {
  const { data: session } = useSession();
  const { data: today } = useToday();
  const { id } = useParams();
  const link = useLinkWords();
  const [isDrawer, setDrawer] = useState(false);
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
      {isDrawer ? (
        <Suspense>
          <MenuDrawer onFind={onFind} onClose={() => setDrawer(false)} />
        </Suspense>
      ) : null}
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
