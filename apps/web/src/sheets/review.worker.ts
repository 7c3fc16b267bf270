import { reviewSheet } from '@jubb/contract/sheet';

/** Reads a sheet as a mechanic would, away from the page: a long one takes its time. */
addEventListener('message', ({ data: { turn, file } }: MessageEvent<{ turn: number; file: object }>) => {
  postMessage({ turn, review: reviewSheet(file) });
});
