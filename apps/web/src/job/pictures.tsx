import { isKind, type AnyKeptEntry } from '@jubb/book';
import type { ReactElement } from 'react';
import { useHere } from './use-job.ts';
import { Clip, Picture } from '../capture/picture.tsx';

/** What was photographed or said, of those entries that fit. */
export function Pictures({ of }: { readonly of: (entry: AnyKeptEntry) => boolean }): ReactElement | null {
  const { state } = useHere();
  const entries = state.live.filter(of);
  const photos = entries.filter(isKind('photo'));
  const clips = entries.filter(isKind('clip'));
  if (photos.length + clips.length === 0) return null;
  return (
    <div className="pictures">
      {photos.map(({ id, payload: { file, words = 'as it was', width, height } }) => (
        <Picture key={id} file={file} words={words} width={width} height={height} />
      ))}
      {clips.map(({ id, payload: { file, sort, words } }) => (
        <Clip key={id} file={file} sort={sort} words={words} />
      ))}
    </div>
  );
}
