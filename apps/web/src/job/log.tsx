import { entryWords, mayMake, type AnyKeptEntry } from '@jubb/book';
import { timeWords } from '../kit/days.ts';
import { useState, type ReactElement } from 'react';
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
    <button type="button" className="btn btn-quiet" onClick={() => onStrike(entry)} aria-label={`Strike number ${entry.seq}`}>
      Strike
    </button>
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
  if (entries.length === 0) return <p className="soft">Nothing recorded yet.</p>;
  return (
    <>
      <table className="table">
        <thead>
          <tr>
            <th scope="col">No.</th>
            <th scope="col">What</th>
            <th scope="col">Who, when</th>
            <th scope="col">
              <span className="visually-hidden">Strike</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {shown.map((entry) => {
            const struck = state.struck.has(entry.id) ? 'struck' : '';
            return (
              <tr key={entry.id}>
                <td className={`fig fs-5 ${struck}`}>{entry.seq}</td>
                <td>
                  <span className={struck}>{entryWords(entry, sheet)}</span>
                  <StruckWords entry={entry} />
                  <Seen entry={entry} />
                </td>
                <td className="soft">
                  {personName(entry.personId).split(' ')[0]} {timeWords(entry.takenAt)}
                </td>
                <td className="text-end">
                  <StrikeButton entry={entry} onStrike={onStrike} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {entries.length > shown.length ? (
        <button type="button" className="btn btn-quiet" onClick={() => setOpen(true)}>
          Show all {entries.length}
        </button>
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
