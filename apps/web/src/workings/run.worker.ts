import { workings } from '@jubb/core';

/** Runs a working that searches, away from the page. */
addEventListener('message', ({ data: { turn, id, input } }: MessageEvent<{ turn: number; id: string; input: unknown }>) => {
  postMessage({ turn, result: workings.run(id, input) });
});
