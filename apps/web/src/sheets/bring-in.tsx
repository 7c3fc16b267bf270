import type { SheetList } from '@jubb/sheet';
import { CSV_LISTS, readCsv, type PlainLine } from '@jubb/sheet/editing';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Care } from '../kit/pieces.tsx';
import { readTextFile } from '../kit/text-file.ts';

interface CsvInProps {
  readonly list: SheetList;
  readonly lines: readonly PlainLine[];
  readonly onLines: (lines: readonly PlainLine[]) => void;
}

/** A CSV file into the list: what it changes is said before it is taken, and it can be undone. */
export function CsvIn({ list, lines, onLines }: CsvInProps): ReactElement | null {
  const [wrong, setWrong] = useState<readonly string[]>([]);
  const [looked, setLooked] = useState<readonly PlainLine[]>();
  if (!CSV_LISTS.some((one) => one === list)) return null;
  const look = async (chosen: File | undefined): Promise<void> => {
    setLooked(undefined);
    setWrong([]);
    if (!chosen) return;
    try {
      const read = readCsv(await readTextFile(chosen), list, lines);
      if (read.ok) setLooked(read.lines);
      else setWrong(read.issues.map((issue) => `Line ${issue.line}: ${issue.message}`));
    } catch (error) {
      setWrong([error instanceof Error ? error.message : String(error)]);
    }
  };
  const refs = new Set(lines.map((line) => line['ref']));
  const fresh = looked?.filter((line) => !refs.has(line['ref'])).length ?? 0;
  const gone = lines.filter((line) => !looked?.some((one) => one['ref'] === line['ref'])).length;
  const changed = looked?.filter((line) => refs.has(line['ref']) && !lines.includes(line)).length ?? 0;
  return (
    <div>
      <label className="btn btn-plain" htmlFor={`csv-${list}`}>
        Bring in CSV
      </label>
      <input
        id={`csv-${list}`}
        className="visually-hidden"
        type="file"
        accept=".csv,text/csv"
        onChange={(event) => {
          void look(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      {wrong.length > 0 ? (
        <Care title="Not read" role="alert">
          {wrong.map((line) => (
            <div key={line}>{line}</div>
          ))}
        </Care>
      ) : null}
      {looked ? (
        <div className="sheet-box">
          {looked.length} lines: {fresh} new, {changed} changed, {gone} taken out.
          <div className="keys">
            <Button
              variant="primary"
              onClick={() => {
                onLines(looked);
                setLooked(undefined);
              }}
            >
              Take them in
            </Button>
            <Button variant="plain" onClick={() => setLooked(undefined)}>
              Leave it
            </Button>
          </div>
        </div>
      ) : null}
    </div>
  );
}
