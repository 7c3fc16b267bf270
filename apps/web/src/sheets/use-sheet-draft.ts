import type { SheetFile } from '@jubb/sheet';
import type { Clash } from '@jubb/sheet/editing';
import type { SheetView } from '@jubb/wire';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { DraftWork, type DraftState } from './draft-work.ts';

export interface SheetDraft extends Pick<DraftState, 'file' | 'keeping' | 'refusal' | 'clashes' | 'joined'> {
  change(next: SheetFile): void;
  readonly undo: (() => void) | undefined;
  readonly redo: (() => void) | undefined;
  settle(clash: Clash, whose: 'mine' | 'theirs'): void;
}

/** A draft as it is worked on here, with whatever others keep of it meanwhile. */
export function useSheetDraft(view: SheetView): SheetDraft {
  const [work] = useState(() => new DraftWork(view));
  const state = useSyncExternalStore(work.subscribe, work.snapshot);
  useEffect(() => work.heard(view), [work, view]);
  return {
    ...state,
    change: (next) => work.change(state.file, next),
    undo: state.canUndo ? () => work.undo() : undefined,
    redo: state.canRedo ? () => work.redo() : undefined,
    settle: (clash, whose) => work.settle(clash, whose),
  };
}
