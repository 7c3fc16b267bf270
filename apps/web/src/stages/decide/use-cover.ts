import type { Cover, Offer } from '@jubb/core';
import { useEffect, useRef, useState } from 'react';

/** The cheapest way to have what is needed; undefined while it is looked for, null when there is none. */
export function useCover(needs: readonly number[], offers: readonly Offer[]): Cover | null | undefined {
  const [cover, setCover] = useState<Cover | null>();
  const worker = useRef<Worker>(undefined);
  const turn = useRef(0);
  const question = JSON.stringify({ needs, offers });
  useEffect(() => {
    const own = new Worker(new URL('./cover.worker.ts', import.meta.url), { type: 'module' });
    own.onmessage = ({ data }: MessageEvent<{ turn: number; cover: Cover | null }>) => {
      if (data.turn === turn.current) setCover(data.cover);
    };
    worker.current = own;
    return () => own.terminate();
  }, []);
  useEffect(() => {
    turn.current += 1;
    worker.current?.postMessage({ turn: turn.current, ...(JSON.parse(question) as object) });
  }, [question]);
  return cover;
}
