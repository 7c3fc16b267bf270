import { KEYMAP } from '../kit/keymap.ts';
import { Suspense, lazy, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useSession } from '../link/queries.ts';
import { useKeys } from '../kit/keys.ts';

// Loaded when somebody takes over.
const Swap = lazy(async () => ({ default: (await import('./swap.tsx')).Swap }));

/** Who is working, and the way for another to take over by PIN. */
export function PersonKey(): ReactElement {
  const { data: session } = useSession();
  const [open, setOpen] = useState(false);
  useKeys({ person: () => setOpen(true) });
  return (
    <>
      <Button
        variant="plain"
        className="person-key"
        title={`${session?.person.name ?? ''}, ${session?.person.role ?? ''}`}
        onClick={() => setOpen(true)}
      >
        {session?.person.name.split(' ')[0]} <kbd className="hide-narrow">{KEYMAP.person.shown}</kbd>
        <span className="visually-hidden"> is working; somebody else takes over</span>
      </Button>
      {open ? (
        <Suspense>
          <Swap onClose={() => setOpen(false)} />
        </Suspense>
      ) : null}
    </>
  );
}
