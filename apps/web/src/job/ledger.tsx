import { entryWords, isKind, type AnyKeptEntry } from '@jubb/contract/job';
import { useState, type FormEvent, type ReactElement } from 'react';
import { useDraft } from '../kit/prefs.ts';
import { useHere } from './use-job.ts';

const MOST_SHOWN = 12;

interface FreeLine {
  readonly count: number;
  readonly name: string;
  readonly tray?: string;
}

/** "6 x M8x25 cover, tray 2" → count, name, tray. */
export function readLine(text: string): FreeLine | undefined {
  const counted = /^\s*(\d{1,4})\s*(?:[x×]\s+|\s+)(.*)$/iu.exec(text);
  const rest = (counted?.[2] ?? text).trim();
  const tray = /,?\s*tray\s+(\S+)\s*$/iu.exec(rest);
  const name = (tray ? rest.slice(0, tray.index) : rest).replace(/,\s*$/u, '').trim();
  const count = Number(counted?.[1] ?? 1);
  if (name === '' || count < 1 || count > 1000) return undefined;
  return { count, name, ...(tray?.[1] ? { tray: tray[1] } : {}) };
}

/** A line for what the sheet does not know. */
export function FreeLedger(): ReactElement {
  const { job, keep, state } = useHere();
  const [text, setText] = useDraft(`${job.id}.free-line`, '');
  const [tried, setTried] = useState(false);
  const line = readLine(text);
  const add = (event: FormEvent): void => {
    event.preventDefault();
    setTried(true);
    if (!line) return;
    keep({ kind: 'came-off', payload: line });
    setText(undefined);
    setTried(false);
  };
  return (
    <section aria-label="A line of your own">
      {state.handedOver ? null : (
        <form onSubmit={add} noValidate className="mb-2">
          <label className="form-label" htmlFor="free-line">
            Came off, but not on the sheet
          </label>
          <div className="d-flex gap-2">
            <input
              id="free-line"
              className={`form-control ${tried && !line ? 'is-invalid' : ''}`}
              placeholder="6 x M8x25 cover, tray 2"
              maxLength={200}
              autoComplete="off"
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
            <button type="submit" className="btn btn-plain">
              Add
            </button>
          </div>
          <div className={tried && !line ? 'v-out' : 'soft'} aria-live="polite">
            {line && text
              ? `${line.count} × ${line.name}${line.tray ? `, tray ${line.tray}` : ''}`
              : tried
                ? 'Say how many (1 to 1000) and what'
                : ''}
          </div>
        </form>
      )}
    </section>
  );
}

interface StrikeProps {
  readonly onStrike?: ((entry: AnyKeptEntry) => void) | undefined;
}

/** What came off, in order: the build goes back up this list. */
export function Ledger({ onStrike }: StrikeProps): ReactElement | null {
  const { job, state } = useHere();
  const lines = job.entries.filter(isKind('came-off'));
  if (lines.length === 0) return null;
  return (
    <table className="table">
      <thead>
        <tr>
          <th scope="col">No.</th>
          <th scope="col">What came off</th>
          <th scope="col">From</th>
          <th scope="col">Count</th>
          <th scope="col">Tray</th>
          <th scope="col">
            <span className="visually-hidden">Strike</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {lines.map((entry) => {
          const { name, place, count, tray, mark } = entry.payload;
          const struck = state.struck.has(entry.id) ? 'struck' : '';
          return (
            <tr key={entry.id}>
              <td className={`fig fs-5 ${struck}`}>{entry.seq}</td>
              <td>
                <span className={struck}>{name}</span> {mark ? <b className="brass">{mark}</b> : null}
                <StruckWords entry={entry} />
              </td>
              <td className={struck}>{place}</td>
              <td className={`fig fs-5 ${struck}`}>{count}</td>
              <td className={struck}>{tray}</td>
              <td className="text-end">
                <StrikeButton entry={entry} onStrike={onStrike} />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const MOST_BESIDE = 7;

/** The last lines of the ledger, to stand beside the next count. */
export function LastOff(): ReactElement {
  const { state } = useHere();
  return (
    <table className="table">
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
    </table>
  );
}

function StruckWords({ entry }: { readonly entry: AnyKeptEntry }): ReactElement | null {
  const { state, personName } = useHere();
  const strike = state.struck.get(entry.id);
  if (strike?.kind !== 'strike') return null;
  return (
    <div className="soft">
      struck by {personName(strike.personId)} {timeWords(strike.takenAt)}, {strike.payload.reason}
    </div>
  );
}

function StrikeButton({ entry, onStrike }: StrikeProps & { readonly entry: AnyKeptEntry }): ReactElement | null {
  const { state } = useHere();
  if (!onStrike || state.handedOver || state.struck.has(entry.id)) return null;
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
    .filter((entry) => entry.kind !== 'strike' && entry.kind !== 'caution-read' && entry.kind !== 'stage')
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

export function timeWords(iso: string): string {
  const at = new Date(iso);
  const isToday = at.toDateString() === new Date().toDateString();
  const clock = at.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
  return isToday ? clock : `${at.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })} ${clock}`;
}
