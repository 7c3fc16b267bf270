import { Undo2 } from 'lucide-react';
import { useState, useSyncExternalStore, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import Toast from 'react-bootstrap/Toast';
import ToastContainer from 'react-bootstrap/ToastContainer';
import { Wrong } from './pieces.tsx';
import { lastUndoable, letStand, onUndoable, type Undoable } from './undo.ts';
import './undo-toast.scss';

const STANDS_MS = 12_000;

/** What was done last, and the way back, for some seconds. */
export function UndoToast(): ReactElement | null {
  const last = useSyncExternalStore(onUndoable, lastUndoable);
  return last ? <Offer key={last.words} of={last} /> : null;
}

function Offer({ of }: { readonly of: Undoable }): ReactElement {
  const [error, setError] = useState<unknown>();
  const [isHeld, setHeld] = useState(false);
  const takeBack = (): void => {
    of.undo().then(letStand, setError);
  };
  return (
    <ToastContainer className="undo no-print">
      <Toast
        onClose={letStand}
        delay={STANDS_MS}
        // Whoever reads it, or has the focus on it, is not hurried.
        autohide={!isHeld && error === undefined}
        animation={false}
        onMouseEnter={() => setHeld(true)}
        onMouseLeave={() => setHeld(false)}
        onFocus={() => setHeld(true)}
        onBlur={() => setHeld(false)}
      >
        <Toast.Body>
          <span className="flex-grow-1">{of.words}</span>
          <Button variant="plain" onClick={takeBack}>
            <Undo2 size={18} aria-hidden="true" /> Undo
          </Button>
          <Button variant="quiet" onClick={letStand}>
            Let it stand
          </Button>
        </Toast.Body>
        <Wrong error={error} />
      </Toast>
    </ToastContainer>
  );
}
