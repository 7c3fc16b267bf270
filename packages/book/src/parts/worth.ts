/** How jobs of the same sheet went: handed over, and back within a year. */
export interface CameBack {
  readonly handedOver: number;
  readonly cameBack: number;
}

/**
 * Share of jobs that come back within a year. With few jobs behind it it leans on one in twenty, as if twenty had gone out
 * before and one had come back (Laplace's rule with a prior of 1 in 20).
 */
export function comebackShare({ handedOver, cameBack }: CameBack): number {
  return (cameBack + 1) / (handedOver + 20);
}

/** A way to go, beside what is planned, as far as it is known before anybody says more: proposals of ours, to be typed over. */
export interface WayProposal {
  readonly way: 'as planned' | 'cheaper now' | 'exchange unit' | 'new';
  /** In minor units. */
  readonly costMinor: number;
  readonly seasons: number;
  /** Either way, in seasons. */
  readonly spread: number;
  /** 0 to 1. */
  readonly comeback: number;
  readonly comebackMinor: number;
  readonly downDays: number;
}

/** Cost, life, comebacks and days of each way, against what is planned. */
const AGAINST_PLANNED = [
  { way: 'as planned', cost: 1, seasons: 4, spread: 1, comeback: 1, downDays: 4 },
  { way: 'cheaper now', cost: 0.45, seasons: 1.5, spread: 0.5, comeback: 4, downDays: 2 },
  { way: 'exchange unit', cost: 1.3, seasons: 4, spread: 1.5, comeback: 1, downDays: 1 },
  { way: 'new', cost: 2.4, seasons: 6, spread: 1.5, comeback: 0.5, downDays: 6 },
] as const;
/** What a comeback costs of what the job cost. */
const COMEBACK_COST = 0.4;

export function waysToGo(plannedMinor: number, comeback: number): readonly WayProposal[] {
  return AGAINST_PLANNED.map(({ way, cost, seasons, spread, comeback: times, downDays }) => ({
    way,
    costMinor: Math.round(plannedMinor * cost),
    seasons,
    spread,
    comeback: Math.min(1, comeback * times),
    comebackMinor: Math.round(plannedMinor * COMEBACK_COST),
    downDays,
  }));
}
