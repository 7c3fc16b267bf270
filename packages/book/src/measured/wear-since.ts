import { limitWindow, type Limit } from '@jubb/sheet';

const DAY_MS = 24 * 3600 * 1000;

export interface Found {
  /** Base units of the limit. */
  readonly figure: number;
  /** ISO instant. */
  readonly at: string;
}

export interface WearSince {
  /** By how much it moved, signed. */
  readonly moved: number;
  /** Days until it reaches its limit at that rate; nothing where it is past it. */
  readonly daysLeft: number | undefined;
}

/** What moved since an earlier rebuild, and how long it lasts if it goes on so; nothing where nothing moved, or within a day. */
export function wearSince(limit: Limit, before: Found, now: Found): WearSince | undefined {
  const { from, to } = limitWindow(limit);
  const days = (Date.parse(now.at) - Date.parse(before.at)) / DAY_MS;
  const moved = now.figure - before.figure;
  const ahead = moved > 0 ? to : from;
  if (days < 1 || moved === 0 || ahead === undefined) return undefined;
  const left = ((ahead - now.figure) / moved) * days;
  return { moved, daysLeft: left > 0 ? left : undefined };
}
