import { useRef, useState, type ReactElement } from 'react';
import { keepPhoto } from './keep-file.ts';

interface PhotoKey {
  /** Opens the camera, or the choice of files. */
  readonly open: () => void;
  /** To stand somewhere on the page: the field, and what went wrong. */
  readonly element: ReactElement;
}

/** Photos by camera or file: each is kept as soon as it is chosen. */
export function usePhotoKey(onKeep: (photo: { file: string; width: number; height: number }) => void): PhotoKey {
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(0);
  const [problem, setProblem] = useState<string>();
  const take = async (chosen: readonly File[]): Promise<void> => {
    setProblem(undefined);
    for (const file of chosen) {
      setBusy((count) => count + 1);
      try {
        const { sha, width, height } = await keepPhoto(file);
        onKeep({ file: sha, width, height });
      } catch (error) {
        setProblem((error as Error).message);
      } finally {
        setBusy((count) => count - 1);
      }
    }
  };
  const element = (
    <>
      <input
        ref={input}
        type="file"
        accept="image/*"
        capture="environment"
        multiple
        hidden
        aria-label="Photo"
        onChange={(event) => {
          const chosen = [...(event.target.files ?? [])];
          // The same picture may be chosen again.
          event.target.value = '';
          void take(chosen);
        }}
      />
      {busy > 0 ? (
        <p className="soft mb-1" role="status">
          Making the picture smaller …
        </p>
      ) : null}
      {problem ? (
        <p className="v-out mb-1" role="alert">
          {problem}
        </p>
      ) : null}
    </>
  );
  return { open: () => input.current?.click(), element };
}
