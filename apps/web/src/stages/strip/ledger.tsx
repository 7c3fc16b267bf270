import { isKind, type AnyKeptEntry, type KeptEntry } from '@jubb/book';
import type { ReactElement } from 'react';
import Table from 'react-bootstrap/Table';
import Button from 'react-bootstrap/Button';
import { StrikeButton, StruckWords, type StrikeProps } from '../../job/log.tsx';
import { useHere } from '../../job/use-job.ts';
import { Pictures } from '../../job/pictures.tsx';

type Line = KeptEntry<'came-off'>;

interface LedgerProps extends StrikeProps {
  /** An assembly that came off whole is opened: what comes out of it is its own. */
  readonly onOpen?: ((line: Line) => void) | undefined;
  readonly onPhoto?: ((line: AnyKeptEntry) => void) | undefined;
}

/** What came off, in order: the build goes back up this list. What came out of an assembly stands under it. */
export function Ledger({ onStrike, onOpen, onPhoto }: LedgerProps): ReactElement | null {
  const { job, state } = useHere();
  const lines = job.entries.filter(isKind('came-off')) as readonly Line[];
  if (lines.length === 0) return null;
  return (
    <Table>
      <thead>
        <tr>
          <th scope="col">No.</th>
          <th scope="col">What came off</th>
          <th scope="col">From</th>
          <th scope="col">Count</th>
          <th scope="col">Tray</th>
          <th scope="col">
            <span className="visually-hidden">What can be done with it</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {nested(lines).map(({ line, depth }) => {
          const { name, size, place, count, tray, mark, direction, condition, stack } = line.payload;
          const struck = state.struck.has(line.id) ? 'struck' : '';
          const sits = [size === name ? undefined : size, direction, stack && `stack: ${stack}`].filter(Boolean).join(', ');
          return (
            <tr key={line.id}>
              <td className={`fig fs-5 ${struck}`}>{line.seq}</td>
              <td style={{ paddingLeft: `${0.5 + depth * 1.5}rem` }}>
                <span className={struck}>{name}</span> {sits ? <span className="soft">{sits}</span> : null}{' '}
                {mark ? <b className="brass">{mark}</b> : null} {condition ? <b>{condition}</b> : null}
                <StruckWords entry={line as AnyKeptEntry} />
                <Pictures of={(entry) => entry.kind === 'photo' && entry.payload.of === line.id} />
              </td>
              <td className={struck}>{place}</td>
              <td className={`fig fs-5 ${struck}`}>{count}</td>
              <td className={struck}>{tray}</td>
              <td className="text-end text-nowrap">
                {onOpen && !struck && !state.handedOver && count === 1 ? (
                  <Button variant="quiet" onClick={() => onOpen(line)} aria-label={`Take apart: ${name}`}>
                    Take apart
                  </Button>
                ) : null}
                {onPhoto && !struck && !state.handedOver ? (
                  <Button variant="quiet" onClick={() => onPhoto(line as AnyKeptEntry)} aria-label={`Photo of ${name}`}>
                    Photo
                  </Button>
                ) : null}
                <StrikeButton entry={line as AnyKeptEntry} onStrike={onStrike} />
              </td>
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}

function nested(lines: readonly Line[]): readonly { readonly line: Line; readonly depth: number }[] {
  const known = new Set(lines.map(({ id }) => id));
  const under = (of: string | undefined, depth: number): readonly { readonly line: Line; readonly depth: number }[] =>
    lines
      .filter(({ payload }) => (payload.inside !== undefined && known.has(payload.inside) ? payload.inside : undefined) === of)
      .flatMap((line) => [{ line, depth }, ...under(line.id, depth + 1)]);
  return under(undefined, 0);
}

const MOST_BESIDE = 7;

/** The last lines of the ledger, to stand beside the next count. */
export function LastOff(): ReactElement {
  const { state } = useHere();
  return (
    <Table>
      <caption className="caption-top">Came off</caption>
      <tbody>
        {state.ledger.slice(-MOST_BESIDE).map(({ id, payload }) => (
          <tr key={id}>
            <td className="fig fs-5">{payload.count}</td>
            <td>{payload.name}</td>
            <td>{payload.tray ? `tray ${payload.tray}` : ''}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
