import { useState, type ReactElement } from 'react';
import Table from 'react-bootstrap/Table';
import { Dialog } from '../kit/dialog.ts';

const ANYWHERE: readonly (readonly [string, string])[] = [
  ['Ctrl K', 'Find a job, sheet, part, tool, working, place or act'],
  ['?', 'These keys'],
  ['Esc', 'Out of a field, out of a dialog'],
  ['Tab', 'To the next field or key'],
  ['Enter', 'Keeps what is typed'],
  ['Space', 'The act in hand, where no field has the cursor'],
];

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
    return words === '' || key === 'Ctrl K' ? [] : [[key, words] as const];
  });
  return [...new Map(shown)];
}

/** What each key does here, on any page. */
export function KeysHelp({ onClose }: { readonly onClose: () => void }): ReactElement {
  const [keys] = useState(() => [...keysOfPage(), ...ANYWHERE]);
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
                <td>{words}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Dialog.Body>
    </Dialog>
  );
}
