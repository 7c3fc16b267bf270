import { keysHelp } from '../kit/keymap.ts';
import { useState, type ReactElement } from 'react';
import Table from 'react-bootstrap/Table';
import { Dialog } from '../kit/dialog.ts';

/** Keys that the page shows beside its acts, as they stand there now. */
function keysOfPage(): readonly (readonly [string, string])[] {
  const shown = [...document.querySelectorAll<HTMLElement>('main kbd, .topbar kbd')].flatMap((kbd) => {
    const key = kbd.textContent;
    const words = [...(kbd.parentElement?.childNodes ?? [])]
      .filter((node) => node !== kbd)
      .map((node) => node.textContent)
      .join(' ')
      .replaceAll(/\s+/gu, ' ')
      .trim();
    return words === '' ? [] : [[key, words] as const];
  });
  return [...new Map(shown)];
}

/** What each key does here, on any page. */
export function KeysHelp({ onClose }: { readonly onClose: () => void }): ReactElement {
  const [keys] = useState(() => [...new Map([...keysOfPage(), ...keysHelp('anywhere')])]);
  return (
    <Dialog show centered animation={false} aria-labelledby="keys-title" onHide={onClose}>
      <Dialog.Header closeButton>
        <Dialog.Title as="h2" id="keys-title">
          Keys
        </Dialog.Title>
      </Dialog.Header>
      <Dialog.Body>
        <Table size="sm" className="mb-0">
          <tbody>
            {keys.map(([key, words]) => (
              <tr key={key}>
                <th scope="row">
                  <kbd>{key}</kbd>
                </th>
                <td>{`${words.charAt(0).toUpperCase()}${words.slice(1)}`}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Dialog.Body>
    </Dialog>
  );
}
