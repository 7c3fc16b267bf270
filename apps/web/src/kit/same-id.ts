import { useRef } from 'react';
import { v7 as uuid } from 'uuid';

/** One id for as long as the same is sent: a lost answer does not do it twice. */
export function useSameId(): (what: unknown) => string {
  const last = useRef<{ readonly text: string; readonly id: string }>(undefined);
  return (what) => {
    const text = JSON.stringify(what);
    if (last.current?.text !== text) last.current = { text, id: uuid() };
    return last.current.id;
  };
}
