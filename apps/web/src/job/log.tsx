import { entryWords, mayMake, type AnyKeptEntry } from '@jubb/book';
import { timeWords } from '../kit/days.ts';
import { useMemo, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { Clip, Picture } from '../capture/picture.tsx';
import { useHere } from './use-job.ts';

const MOST_SHOWN = 12;

export interface StrikeProps {
  readonly onStrike?: ((entry: AnyKeptEntry) => void) | undefined;
}

export function StruckWords({ entry }: { readonly entry: AnyKeptEntry }): ReactElement | null {
  const { state, personName } = useHere();
  const strike = state.struck.get(entry.id);
  if (strike?.kind !== 'strike') return null;
  return (
    <div className="soft">
      struck by {personName(strike.personId)} {timeWords(strike.takenAt)}, {strike.payload.reason}
    </div>
  );
}

export function StrikeButton({ entry, onStrike }: StrikeProps & { readonly entry: AnyKeptEntry }): ReactElement | null {
  const { state, person } = useHere();
  if (!onStrike || state.handedOver || state.struck.has(entry.id) || !mayMake(entry.kind, person.role)) return null;
  return (
    <Button variant="quiet" onClick={() => onStrike(entry)} aria-label={`Strike number ${entry.seq}`}>
      Strike
    </Button>
  );
}

/** The newest entries in words; struck ones stay, struck through, with who and why. */
export function Log({ onStrike }: StrikeProps): ReactElement {
  const { job, sheet, state, personName } = useHere();
  const [open, setOpen] = useState(false);
  const entries = job.entries
    .filter(
      (entry) => entry.kind !== 'strike' && entry.kind !== 'caution-read' && (entry.kind !== 'stage' || entry.payload.why !== undefined),
    )
    .toReversed();
  const shown = open ? entries : entries.slice(0, MOST_SHOWN);
  const columns = useMemo((): readonly Column<AnyKeptEntry>[] => {
    const struck = ({ id }: AnyKeptEntry): string => (state.struck.has(id) ? 'struck' : '');
    return [
      {
        id: 'seq',
        head: 'No.',
        cellClass: 'fig fs-5',
        value: ({ seq }) => seq,
        cell: (entry) => <span className={struck(entry)}>{entry.seq}</span>,
      },
      {
        id: 'what',
        head: 'What',
        value: (entry) => entryWords(entry, sheet),
        cell: (entry) => (
          <>
            <span className={struck(entry)}>{entryWords(entry, sheet)}</span>
            <StruckWords entry={entry} />
            <Seen entry={entry} />
          </>
        ),
      },
      {
        id: 'who',
        head: 'Who, when',
        className: 'soft',
        value: ({ personId, takenAt }) => `${takenAt} ${personName(personId)}`,
        cell: ({ personId, takenAt }) => `${personName(personId).split(' ')[0]} ${timeWords(takenAt)}`,
      },
      {
        id: 'strike',
        head: 'Strike',
        className: 'text-end',
        value: (entry) => struck(entry),
        cell: (entry) => <StrikeButton entry={entry} onStrike={onStrike} />,
      },
    ];
  }, [state.struck, sheet, personName, onStrike]);
  if (entries.length === 0) return <p className="soft">Nothing recorded yet.</p>;
  return (
    <>
      <DataTable name="entries" columns={columns} rows={shown} rowKey={({ id }) => id} isBare={!open} />
      {entries.length > shown.length ? (
        <Button variant="quiet" onClick={() => setOpen(true)}>
          Show all {entries.length}
        </Button>
      ) : null}
    </>
  );
}

/** The picture or the sound of an entry that has one. */
function Seen({ entry }: { readonly entry: AnyKeptEntry }): ReactElement | null {
  if (entry.kind === 'photo') {
    const { file, words = 'as it was', width, height } = entry.payload;
    return (
      <div>
        <Picture file={file} words={words} width={width} height={height} />
      </div>
    );
  }
  return entry.kind === 'clip' ? (
    <div>
      <Clip {...entry.payload} />
    </div>
  ) : null;
}
