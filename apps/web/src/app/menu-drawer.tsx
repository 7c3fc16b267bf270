import { Search } from 'lucide-react';
import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { Drawer } from '../kit/drawer.ts';
import { useSession } from '../link/queries.ts';
import { Picks, logOut } from './picks.tsx';
import { Places } from './places.tsx';

/** What the top bar and the rail of a wide screen have, on a narrow one. */
export function MenuDrawer({ onFind, onClose }: { readonly onFind: () => void; readonly onClose: () => void }): ReactElement {
  const { data: session } = useSession();
  return (
    <Drawer show onHide={onClose} placement="start" aria-label="Menu" restoreFocus>
      <Drawer.Header closeButton>
        <Drawer.Title as="h2">{session?.shop.name}</Drawer.Title>
      </Drawer.Header>
      <Drawer.Body>
        <Button
          variant="plain"
          className="mb-2"
          onClick={() => {
            onClose();
            onFind();
          }}
        >
          <Search size={20} aria-hidden="true" /> Find
        </Button>
        <Places onGo={onClose} />
        <p className="mt-3 mb-1">
          <Link to="/shop" onClick={onClose}>
            The shop
          </Link>
        </p>
        <Picks />
        <Button variant="quiet" onClick={() => void logOut()}>
          Log out
        </Button>
      </Drawer.Body>
    </Drawer>
  );
}
