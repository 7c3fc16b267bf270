import type { Stage } from '@jubb/sheet';
import {
  BookMarked,
  Camera,
  CircleDashed,
  CirclePause,
  Droplets,
  Eraser,
  Hammer,
  Hand,
  ListPlus,
  Mic,
  Move,
  NotebookPen,
  Play,
  ScanEye,
  Tag,
  Wrench,
  type LucideIcon,
} from 'lucide-react';
import type { KeyName } from '../kit/keymap.ts';

/** What a key of a job is called, and its sign. */
interface StripKey {
  readonly word: string;
  readonly sign: LucideIcon;
}

/** All that can be recorded by one key, whatever the step. */
export const STRIP_KEYS = {
  photo: { word: 'Photo', sign: Camera },
  note: { word: 'Note', sign: NotebookPen },
  talk: { word: 'Talk', sign: Mic },
  line: { word: 'Own line', sign: ListPlus },
  mark: { word: 'Mark', sign: Tag },
  stuck: { word: 'Will not come', sign: Hammer },
  'open-end': { word: 'Open end', sign: CircleDashed },
  moved: { word: 'Moved', sign: Move },
  'came-out': { word: 'Came out', sign: Droplets },
  finding: { word: 'As found', sign: ScanEye },
  owed: { word: 'Owed', sign: Hand },
  'next-time': { word: 'Next time', sign: BookMarked },
  'tool-made': { word: 'Tool made', sign: Wrench },
  hold: { word: 'Hold', sign: CirclePause },
  strike: { word: 'Strike last', sign: Eraser },
} as const satisfies Partial<Record<KeyName, StripKey>>;

export const TAKE_UP: StripKey = { word: 'Take it up', sign: Play };

export type StripKeyName = keyof typeof STRIP_KEYS;

/** What is used at a stage, the most used first; with the hold it is what has room, the rest stands behind "More". */
const USED: Readonly<Record<Stage, readonly StripKeyName[]>> = {
  'book-in': ['photo', 'finding', 'note', 'talk', 'moved'],
  strip: ['photo', 'line', 'mark', 'stuck', 'open-end', 'came-out'],
  measure: ['photo', 'finding', 'note', 'talk'],
  decide: ['photo', 'note', 'finding', 'owed', 'talk'],
  build: ['photo', 'note', 'mark', 'open-end', 'talk'],
  prove: ['photo', 'note', 'finding', 'talk'],
  'hand-over': ['photo', 'note', 'owed', 'next-time'],
};

/** Rail, margins, "Bench" and "More", CSS px; and a key with its word and letter. */
const BESIDE_KEYS_PX = 500;
const KEY_PX = 148;
/** On a telephone the rail is over the page, and "Bench" and "More" leave room for one. */
const NARROW_PX = 900;

/** So many keys have room beside "Bench" and "More" in a window of that width. */
export function keysFor(width: number): number {
  return width <= NARROW_PX ? 1 : Math.max(1, Math.floor((width - BESIDE_KEYS_PX) / KEY_PX));
}

/** Holding a job is seldom, and in a hurry: it has a place on any wide screen. */
const BEFORE_HOLD = 4;

/** The keys of a stage, and the others. */
export function stripKeys(stage: Stage): { readonly used: readonly StripKeyName[]; readonly rest: readonly StripKeyName[] } {
  const used: readonly StripKeyName[] = USED[stage].toSpliced(BEFORE_HOLD, 0, 'hold');
  return { used, rest: (Object.keys(STRIP_KEYS) as StripKeyName[]).filter((name) => !used.includes(name)) };
}
