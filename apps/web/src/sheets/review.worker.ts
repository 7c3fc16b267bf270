import type { Tool } from '@jubb/sheet';
import { reviewSheet } from '@jubb/sheet/editing';

/** Reads a sheet as a mechanic would, away from the page: a long one takes its time. */
addEventListener('message', ({ data: { turn, file, tools } }: MessageEvent<{ turn: number; file: object; tools: readonly Tool[] }>) => {
  postMessage({ turn, review: reviewSheet(file, tools) });
});
