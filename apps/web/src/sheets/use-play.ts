import type { PlayCheck, Rehearsal } from '@jubb/play';
import type { SheetFile } from '@jubb/sheet';
import { useEffect, useState } from 'react';
import { useTools } from '../link/queries.ts';
import type { PlayAsked } from './play.worker.ts';

export interface PlayProgress {
  readonly done: number;
  readonly of: number;
}

type Told = Partial<PlayProgress> & { readonly check?: PlayCheck; readonly rehearsal?: Rehearsal };

/** Asks a worker of its own; one that is still at an older question is let go. */
function usePlayed(asked: PlayAsked | undefined, key: string): Told | undefined {
  const [told, setTold] = useState<{ readonly key: string; readonly told: Told }>();
  useEffect(() => {
    if (!asked) return undefined;
    const worker = new Worker(new URL('./play.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<Told>) => setTold({ key, told: data });
    worker.postMessage(asked);
    return () => worker.terminate();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key stands for what is asked
  }, [key]);
  return told?.key === key ? told.told : undefined;
}

const keys = new WeakMap<object, number>();
let lastKey = 0;

function keyOf(file: object | undefined): number {
  if (!file) return 0;
  const key = keys.get(file) ?? (lastKey += 1);
  keys.set(file, key);
  return key;
}

/** Every way through a sheet, played; how far it is until then. Nothing is played that does not hold together. */
export function usePlayCheck(file: SheetFile | undefined): { readonly check?: PlayCheck; readonly progress?: PlayProgress } {
  const told = usePlayed(file && { what: 'check', file }, `check ${keyOf(file)}`);
  if (!told) return {};
  const { check, done, of } = told;
  return { ...(check ? { check } : {}), ...(done !== undefined && of !== undefined ? { progress: { done, of } } : {}) };
}

/** One way through a sheet, as a job would go by it. */
export function useRehearsal(file: SheetFile | undefined, route: number): Rehearsal | undefined {
  const { data: tools } = useTools();
  const isAsked = file !== undefined && tools !== undefined;
  const told = usePlayed(isAsked ? { what: 'rehearse', file, route, tools } : undefined, `rehearse ${isAsked ? keyOf(file) : 0} ${route}`);
  return told?.rehearsal;
}
