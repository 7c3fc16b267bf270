import { cheapestCover, type Offer } from '@jubb/core';

/** Finds the cheapest cover away from the page: many kits that overlap take their time. */
addEventListener(
  'message',
  ({ data: { turn, needs, offers } }: MessageEvent<{ turn: number; needs: readonly number[]; offers: readonly Offer[] }>) => {
    postMessage({ turn, cover: cheapestCover(needs, offers) ?? null });
  },
);
