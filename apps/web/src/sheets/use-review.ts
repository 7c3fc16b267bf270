import type { Review, Tool } from '@jubb/sheet';
import { useEffect, useRef, useState } from 'react';
import { useTools } from '../link/queries.ts';

const NONE: readonly Tool[] = [];

/** What the checker says of a sheet; of the one before while it reads. */
export function useReview(file: object | undefined): Review | undefined {
  const { data: tools = NONE } = useTools();
  const [review, setReview] = useState<Review>();
  const worker = useRef<Worker>(undefined);
  const turn = useRef(0);
  useEffect(() => {
    const own = new Worker(new URL('./review.worker.ts', import.meta.url), { type: 'module' });
    own.onmessage = ({ data }: MessageEvent<{ turn: number; review: Review }>) => {
      // An answer to a sheet that has changed since is old.
      if (data.turn === turn.current) setReview(data.review);
    };
    worker.current = own;
    return () => own.terminate();
  }, []);
  useEffect(() => {
    if (!file) return;
    turn.current += 1;
    worker.current?.postMessage({ turn: turn.current, file, tools });
  }, [file, tools]);
  return review;
}
