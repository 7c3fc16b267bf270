import type { Decision } from '@jubb/book';
import { OLD_FATES, type OldFate } from '@jubb/sheet';
import type { ReactElement } from 'react';
import Table from 'react-bootstrap/Table';
import Button from 'react-bootstrap/Button';
import { useHere } from '../../job/use-job.ts';

const FATE_WORDS: Readonly<Record<OldFate, string>> = { hold: 'Hold it', return: 'Give it back', scrap: 'Scrap it' };

/** Where the old parts go: held until the new one was held against them. */
export function OldParts(): ReactElement | null {
  const { state } = useHere();
  const renewed = state.decisions.filter(({ entry }) => entry?.payload.fate === 'renew');
  if (renewed.length === 0) return null;
  return (
    <section className="mb-3">
      <h2>Old parts</h2>
      <Table>
        <thead>
          <tr>
            <th scope="col">Part</th>
            <th scope="col">New one held against it</th>
            <th scope="col">Where it goes</th>
          </tr>
        </thead>
        <tbody>
          {renewed.map((decision) => (
            <OldPart key={decision.part.ref} decision={decision} />
          ))}
        </tbody>
      </Table>
    </section>
  );
}

function OldPart({ decision: { part } }: { readonly decision: Decision }): ReactElement {
  const { state, keep } = useHere();
  const { fate = 'hold', compared = false } = state.oldParts.find(({ payload }) => payload.part === part.ref)?.payload ?? {};
  const say = (change: { fate?: OldFate; compared?: boolean }): void =>
    keep({ kind: 'old-part', payload: { part: part.ref, name: part.name, fate, compared, ...change } });
  return (
    <tr>
      <td>{part.name}</td>
      <td>
        {compared ? (
          'yes'
        ) : state.handedOver ? (
          'no'
        ) : (
          <Button variant="quiet" aria-label={`It is the same: ${part.name}`} onClick={() => say({ compared: true })}>
            It is the same
          </Button>
        )}
      </td>
      <td>
        <div className="d-flex flex-wrap gap-2">
          {OLD_FATES.map((candidate) => (
            <Button
              key={candidate}
              variant="plain"
              className={candidate === fate ? 'on' : ''}
              aria-pressed={candidate === fate}
              disabled={state.handedOver !== undefined || (candidate !== 'hold' && !compared)}
              onClick={() => say({ fate: candidate })}
            >
              {FATE_WORDS[candidate]}
            </Button>
          ))}
        </div>
      </td>
    </tr>
  );
}
