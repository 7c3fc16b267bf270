import type { SheetFile } from '@jubb/sheet';
import { mergeSheets, type Clash } from '@jubb/sheet/editing';
import { ENDPOINTS, type SheetView } from '@jubb/wire';
import { useCallback, useEffect, useRef, useState } from 'react';
import { LinkDown, ask, meanwhile } from '../link/client.ts';
import { queryClient } from '../link/queries.ts';
import { readStored, writeStored } from '../kit/prefs.ts';

const PAUSE_MS = 900;
const RETRY_MS = 5000;
const MOST_UNDO = 100;

export type Keeping = 'kept' | 'keeping' | 'held' | 'refused' | 'clash';

interface Local {
  readonly file: SheetFile;
  /** What the server had when these changes began, and its version. */
  readonly base: SheetFile;
  readonly version: number;
}

export interface SheetDraft {
  readonly file: SheetFile;
  readonly keeping: Keeping;
  readonly refusal: unknown;
  /** Lines that somebody else changed at the same time, in another way. */
  readonly clashes: readonly Clash[];
  /** Whose changes were brought together with these, until it is read. */
  readonly joined: string | undefined;
  change(next: SheetFile): void;
  readonly undo: (() => void) | undefined;
  readonly redo: (() => void) | undefined;
  settle(clash: Clash, whose: 'mine' | 'theirs'): void;
}

/**
 * A draft as it is worked on here: each change is on this device at once and at the server a moment
 * later. When somebody else was first, the two are brought together line by line; a line that both
 * changed waits for a word.
 */
export function useSheetDraft(view: SheetView): SheetDraft {
  const id = view.revisionId;
  const stored = `draft.sheet.${id}`;
  const [local, setLocal] = useState<Local>(() => {
    const held = readStored(stored);
    return held === undefined ? { file: view.file, base: view.file, version: view.version } : (JSON.parse(held) as Local);
  });
  const [past, setPast] = useState<readonly SheetFile[]>([]);
  const [future, setFuture] = useState<readonly SheetFile[]>([]);
  const [trouble, setTrouble] = useState<'held' | 'refused'>();
  const [refusal, setRefusal] = useState<unknown>();
  const [clashes, setClashes] = useState<readonly Clash[]>([]);
  const [theirs, setTheirs] = useState<SheetFile>();
  const [joined, setJoined] = useState<string>();
  const [turn, setTurn] = useState(0);
  const latest = useRef(local);

  const put = useCallback(
    (next: Local): void => {
      latest.current = next;
      setLocal(next);
      writeStored(stored, next.file === next.base ? undefined : JSON.stringify(next));
    },
    [stored],
  );

  // What others kept comes in by itself while nothing here waits to be kept.
  useEffect(() => {
    const now = latest.current;
    if (view.version > now.version && now.file === now.base) put({ file: view.file, base: view.file, version: view.version });
  }, [view, put]);

  const dirty = local.file !== local.base;
  const waits = clashes.length > 0;
  useEffect(() => {
    if (!dirty || waits) return;
    const save = async (): Promise<void> => {
      const sent = latest.current;
      try {
        const { version } = await ask(ENDPOINTS.sheets.save, { id, body: { version: sent.version, file: sent.file } });
        put({ file: latest.current.file, base: sent.file, version });
        setRefusal(undefined);
        setTrouble(undefined);
        void queryClient.invalidateQueries({ queryKey: ['sheets'] });
      } catch (error) {
        if (error instanceof LinkDown) {
          setTrouble('held');
          retry = window.setTimeout(() => setTurn((count) => count + 1), RETRY_MS);
          return;
        }
        const current = meanwhile<SheetView>(error);
        if (!current) {
          setTrouble('refused');
          setRefusal(error);
          return;
        }
        const merged = mergeSheets(sent.base, latest.current.file, current.file);
        put({ file: merged.file, base: current.file, version: current.version });
        setTheirs(current.file);
        setClashes(merged.clashes);
        setJoined(current.editedBy ?? 'somebody');
      }
    };
    let retry: number | undefined;
    const timer = window.setTimeout(() => void save(), PAUSE_MS);
    return () => {
      window.clearTimeout(timer);
      window.clearTimeout(retry);
    };
    // What was changed while the last save was under way has a new base, and is saved next.
  }, [local.file, local.base, dirty, waits, turn, id, put]);

  const set = (file: SheetFile): void => put({ ...latest.current, file });
  return {
    file: local.file,
    keeping: waits ? 'clash' : dirty ? (trouble ?? 'keeping') : 'kept',
    refusal,
    clashes,
    joined,
    change: (next) => {
      setPast([...past, local.file].slice(-MOST_UNDO));
      setFuture([]);
      setJoined(undefined);
      // Somebody else's change may have come in since this one was begun.
      const now = latest.current.file;
      set(now === local.file ? next : mergeSheets(local.file, next, now).file);
    },
    undo:
      past.length === 0
        ? undefined
        : () => {
            setFuture([local.file, ...future]);
            setPast(past.slice(0, -1));
            set(past.at(-1)!);
          },
    redo:
      future.length === 0
        ? undefined
        : () => {
            setPast([...past, local.file]);
            setFuture(future.slice(1));
            set(future[0]!);
          },
    settle: (clash, whose) => {
      if (whose === 'theirs' && theirs) set(takeLine(local.file, theirs, clash));
      setClashes(clashes.filter((one) => one !== clash));
    },
  };
}

/** Their version of one line, or of one field of the sheet itself. */
function takeLine(mine: SheetFile, theirs: SheetFile, { list, ref, name }: Clash): SheetFile {
  if (list === 'sheet') return { ...mine, [name]: (theirs as unknown as Record<string, unknown>)[name] } as SheetFile;
  const their = ((theirs[list] ?? []) as readonly { readonly ref: string }[]).find((line) => line.ref === ref);
  const lines = (mine[list] ?? []) as readonly { readonly ref: string }[];
  const next = their ? lines.map((line) => (line.ref === ref ? their : line)) : lines.filter((line) => line.ref !== ref);
  return { ...mine, [list]: next } as unknown as SheetFile;
}
