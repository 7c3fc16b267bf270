import { checkByPlay, rehearse, routesOf } from '@jubb/play';
import type { SheetFile, Tool } from '@jubb/sheet';

/** What is asked of a play: every way through a sheet, or one of them as a job would go by it. */
export type PlayAsked =
  | { readonly what: 'check'; readonly file: SheetFile }
  | { readonly what: 'rehearse'; readonly file: SheetFile; readonly route: number; readonly tools: readonly Tool[] };

/** Plays jobs away from the page, and says how far it is. */
addEventListener('message', ({ data }: MessageEvent<PlayAsked>) => {
  if (data.what === 'check') {
    postMessage({ check: checkByPlay(data.file, (done, of) => postMessage({ done, of })) });
    return;
  }
  const routes = routesOf(data.file);
  const route = routes[data.route] ?? routes[0];
  if (route) postMessage({ rehearsal: rehearse(route.sheet, data.tools, route.begins) });
});
