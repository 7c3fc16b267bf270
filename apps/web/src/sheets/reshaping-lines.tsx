import type { Reshaping, SheetFile } from '@jubb/sheet';
import { reshapingWords } from '@jubb/sheet/editing';
import type { ReactElement } from 'react';

/** What a variant or a way changes on a sheet, a line each. */
export function ReshapingLines({ file, of }: { readonly file: SheetFile; readonly of: Reshaping }): ReactElement | null {
  const lines = reshapingWords(file, of);
  if (lines.length === 0) return null;
  return (
    <ul className="list-unstyled soft mb-0">
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  );
}
