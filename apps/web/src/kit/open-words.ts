import { benchOpen, type Bench } from '@jubb/book';
import { weekdayIn } from '@jubb/sheet';
import { shopClock } from './days.ts';

/** "open until 16:30", or why it is not and when it is again: of a bench with hours of its own, or the shop's; nothing where neither says. */
export function openWords(bench: Pick<Bench, 'hours'>): { readonly isOpen: boolean; readonly words: string } | undefined {
  const { hours, day, clock } = shopClock();
  const open = benchOpen(bench, hours, day, clock);
  if (!open) return undefined;
  if (open.isOpen) return { isOpen: true, words: `open until ${open.until}` };
  const { why, from } = open;
  const opens = from && `opens ${from.day === day ? '' : `${weekdayIn('UTC', from.day)} `}${from.clock}`;
  return { isOpen: false, words: [why, opens].filter(Boolean).join(', ') };
}
