import { workings, type RunResult, type WorkingDescription } from '@jubb/core';
import { useEffect, useMemo, useRef, useState } from 'react';

type Input = Readonly<Record<string, unknown>>;

/** What a working says to an input; of one that searches the answer before stands until a worker has the next. */
export function useRun({ id, heavy }: Pick<WorkingDescription, 'id' | 'heavy'>, input: Input): RunResult | undefined {
  const asked = JSON.stringify(input);
  const here = useMemo(() => (heavy ? undefined : workings.run(id, JSON.parse(asked))), [id, heavy, asked]);
  const [found, setFound] = useState<RunResult>();
  const worker = useRef<Worker>(undefined);
  const turn = useRef(0);
  useEffect(() => {
    if (!heavy) return undefined;
    const own = new Worker(new URL('./run.worker.ts', import.meta.url), { type: 'module' });
    own.onmessage = ({ data }: MessageEvent<{ turn: number; result: RunResult }>) => {
      if (data.turn === turn.current) setFound(data.result);
    };
    worker.current = own;
    return () => own.terminate();
  }, [heavy]);
  useEffect(() => {
    turn.current += 1;
    worker.current?.postMessage({ turn: turn.current, id, input: JSON.parse(asked) as Input });
  }, [id, heavy, asked]);
  return heavy ? found : here;
}
