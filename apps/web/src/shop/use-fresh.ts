import { useEffect, useEffectEvent, useRef } from 'react';
import type { FieldValues } from 'react-hook-form';
import type { AskForm } from '../kit/ask-form.ts';
import { readDraft } from '../kit/prefs.ts';

/** A form in which nothing is half typed follows what it is about: the other form of the page has changed it, say. */
export function useFresh<V extends FieldValues>({ begin }: AskForm<V>, draft: string, version: number, now: () => V): void {
  const begun = useRef(version);
  const follow = useEffectEvent(() => {
    if (Object.keys(readDraft<V>(draft)).length === 0) begin(now());
  });
  useEffect(() => {
    if (begun.current === version) return;
    begun.current = version;
    follow();
  }, [version]);
}
