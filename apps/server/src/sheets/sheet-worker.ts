import { checkByPlay, toolsLacking } from '@jubb/play';
import type { CompletePart, Difference, SheetFile, Tool } from '@jubb/sheet';
import { readSheetFile, reviewSheet, sheetDifferences } from '@jubb/sheet/editing';
import { sheetIssues } from '@jubb/sheet/file';
import { createHash } from 'node:crypto';
import type { MessagePort } from 'node:worker_threads';
import { canonicalJson } from '../common/canonical.js';

/** What is worked out beside the loop that answers: a large sheet takes seconds, and nobody is to wait for it. */
export interface SheetTasks {
  read(text: string): ReturnType<typeof readSheetFile>;
  issues(file: SheetFile): ReturnType<typeof sheetIssues>;
  /** What is shown of a draft in the list, and what it is known by. */
  mark(file: SheetFile): { readonly complete: readonly CompletePart[]; readonly hash: string };
  /** Why it cannot be approved yet. */
  stops(file: SheetFile): readonly { readonly field: string; readonly allowed: string }[];
  differences(before: SheetFile, after: SheetFile): readonly Difference[];
  /** What of the tools a sheet asks for is not among these, in words. */
  lacking(file: SheetFile, tools: readonly Tool[]): readonly string[];
}

export const TASKS: SheetTasks = {
  read: readSheetFile,
  issues: (file) => sheetIssues(file as unknown as Record<string, unknown>),
  mark: (file) => ({
    complete: reviewSheet(file).complete,
    hash: createHash('sha256').update(canonicalJson(file)).digest('hex'),
  }),
  stops(file) {
    const stops = reviewSheet(file)
      .findings.filter(({ severity }) => severity === 'stop')
      .map(({ path, say }) => ({ field: path, allowed: say }));
    // What does not hold together cannot be played.
    return stops.length > 0
      ? stops
      : checkByPlay(file)
          .findings.filter(({ severity }) => severity === 'stop')
          .map(({ list, ref, say, on }) => ({ field: `${list}.${ref}`, allowed: `${say} (${on})` }));
  },
  differences: sheetDifferences,
  lacking: toolsLacking,
};

export interface SheetTask {
  readonly name: keyof SheetTasks;
  readonly given: readonly unknown[];
  /** Where it is told that it is begun. */
  readonly begun: MessagePort;
}

/** One task, by its name, for a thread of its own. */
export default function work({ name, given, begun }: SheetTask): unknown {
  begun.postMessage(true);
  begun.close();
  return (TASKS[name] as (...all: readonly unknown[]) => unknown)(...given);
}
