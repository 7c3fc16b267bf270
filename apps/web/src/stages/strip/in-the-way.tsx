import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Dialog } from '../../kit/dialog.ts';
import type { JobActs } from '../../job/asks.ts';
import { MovedAside } from './moved.tsx';

interface InTheWayProps extends Pick<JobActs, 'photo'> {
  readonly onOther: () => void;
  readonly onClose: () => void;
}

/** By one key, at the bench too: what is in the way, what is out of it, and what it upset. */
export function InTheWay({ photo, onOther, onClose }: InTheWayProps): ReactElement {
  return (
    <Dialog show centered scrollable animation={false} onHide={onClose} aria-labelledby="in-the-way" restoreFocus>
      <Dialog.Header closeButton>
        <h2 id="in-the-way" className="mb-0">
          In the way
        </h2>
      </Dialog.Header>
      <Dialog.Body>
        <MovedAside photo={photo} />
      </Dialog.Body>
      <Dialog.Footer>
        <Button variant="plain" onClick={onOther}>
          Something else was moved
        </Button>
        <Button variant="primary" onClick={onClose}>
          Done
        </Button>
      </Dialog.Footer>
    </Dialog>
  );
}
