import { useRef } from 'react';
import { v7 as uuid } from 'uuid';

interface SameId {
  /** One id for as long as the same is sent: a lost answer does not do it twice. */
  readonly idOf: (what: unknown) => string;
  /** It was done: the same once more is another. */
  readonly isDone: () => void;
}

export function useSameId(): SameId {
  const last = useRef<{ readonly text: string; readonly id: string }>(undefined);
  return {
    idOf: (what) => {
      const text = JSON.stringify(what);
      if (last.current?.text !== text) last.current = { text, id: uuid() };
      return last.current.id;
    },
    isDone: () => {
      last.current = undefined;
    },
  };
}
