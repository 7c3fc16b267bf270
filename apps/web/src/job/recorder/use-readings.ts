import type { Quantity } from '@jubb/core';
import { readFigure } from '../../kit/figure-field.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { useUnits } from '../../kit/units.ts';

interface ReadingsDraft {
  readonly text: string;
  readonly kept: readonly number[];
  /** Symbol of the unit that was typed last. */
  readonly unit?: string;
}

const EMPTY: ReadingsDraft = { text: '', kept: [] };

export interface Readings {
  readonly text: string;
  readonly kept: readonly number[];
  readonly unit: string;
  readonly setText: (text: string) => void;
  /** The typed figure in base units; nothing when it is none. */
  readonly typed: number | undefined;
  /** Takes the typed figure as a reading, or another one in its place; true when there was one. */
  readonly take: (instead?: number) => boolean;
  readonly dropLast: () => void;
  readonly clear: () => void;
}

/** Under which readings that are not kept yet are drafted: of a job and its step, and what behind it tells them apart. */
export function unkeptKey(key: string): string {
  return `readings.${key}`;
}

/** Repeats of one measurement, in base units, drafted so that a reload loses none. */
export function useReadings(key: string, quantity: Quantity, bounds: { least: number; most: number }): Readings {
  const units = useUnits();
  const [draft, setDraft] = useDraft<ReadingsDraft>(unkeptKey(key), EMPTY);
  const { base, unit } = readFigure(draft.text, quantity, units.symbol(quantity), bounds);
  return {
    text: draft.text,
    typed: base,
    kept: draft.kept,
    unit: draft.unit ?? units.symbol(quantity),
    setText: (text) => setDraft(text === '' && draft.kept.length === 0 ? undefined : { ...draft, text }),
    take: (instead) => {
      if (base === undefined || unit === undefined) return false;
      setDraft({ text: '', kept: [...draft.kept, instead ?? base], unit });
      return true;
    },
    dropLast: () => setDraft(draft.text === '' && draft.kept.length < 2 ? undefined : { ...draft, kept: draft.kept.slice(0, -1) }),
    clear: () => setDraft(undefined),
  };
}
