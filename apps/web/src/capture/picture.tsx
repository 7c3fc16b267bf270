import { useEffect, useReducer, useState, useSyncExternalStore, type ReactElement } from 'react';
import { onArrival } from '../link/arrivals.ts';
import { files } from '../link/files.ts';
import './capture.scss';

/** Address of a kept file, and a key that changes when it has arrived. */
function useFile(sha: string): { readonly url: string; readonly turn: number; readonly refused: string | undefined } {
  const held = useSyncExternalStore(files.subscribe, files.snapshot).find((file) => file.sha === sha);
  const [turn, again] = useReducer((count: number) => count + 1, 0);
  useEffect(() => onArrival((arrived) => arrived === sha && again()), [sha]);
  return { url: files.url(sha), turn, refused: held?.refused?.errors?.[0]?.allowed ?? held?.refused?.title };
}

interface PictureProps {
  readonly file: string;
  readonly words: string;
  readonly width: number;
  readonly height: number;
}

/** A small picture that opens in full; one that is still on another tablet says so. */
export function Picture({ file, words, width, height }: PictureProps): ReactElement {
  const { url, turn, refused } = useFile(file);
  const [missing, setMissing] = useState<number>();
  if (refused) return <span className="v-out">The server would not take this picture: {refused}</span>;
  if (missing === turn) return <span className="soft">The picture is still on the tablet that took it.</span>;
  return (
    <a href={url} target="_blank" rel="noreferrer" className="picture" aria-label={`Picture: ${words}`}>
      <img key={turn} src={url} alt={words} width={width} height={height} loading="lazy" onError={() => setMissing(turn)} />
    </a>
  );
}

/** A clip that can be heard, or seen. */
export function Clip({
  file,
  sort,
  words,
}: {
  readonly file: string;
  readonly sort: 'audio' | 'video';
  readonly words: string;
}): ReactElement {
  const { url, turn } = useFile(file);
  return sort === 'audio' ? (
    <audio key={turn} controls preload="none" src={url} aria-label={words} />
  ) : (
    <video key={turn} controls preload="none" src={url} aria-label={words} className="clip" />
  );
}
