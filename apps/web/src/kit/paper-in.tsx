import { ENDPOINTS } from '@jubb/wire';
import { useId, useState, type ReactElement } from 'react';
import { upload } from '../link/client.ts';
import { Wrong } from './pieces.tsx';

interface PaperInProps {
  /** What the key says. */
  readonly words: string;
  readonly onPaper: (paper: { readonly id: string; readonly name: string }) => void;
}

/** A PDF of the shop's own, kept once whatever it is brought in for. */
export function PaperIn({ words, onPaper }: PaperInProps): ReactElement {
  const id = useId();
  const [error, setError] = useState<unknown>();
  const bringIn = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setError(undefined);
    try {
      onPaper({ id: (await upload(ENDPOINTS.papers.keep, { name: file.name }, file.type, file)).id, name: file.name });
    } catch (refusal) {
      setError(refusal);
    }
  };
  return (
    <div className="mb-2">
      <label className="btn btn-plain" htmlFor={id}>
        {words}
      </label>
      <input
        id={id}
        className="visually-hidden"
        type="file"
        accept="application/pdf"
        onChange={(event) => void bringIn(event.target.files?.[0])}
      />
      <Wrong error={error} />
    </div>
  );
}
