import { PRACTICE_AXLE, PRACTICE_HUB, PRACTICE_SHAFT, PracticeAxle, PracticeHub, PracticeShaft, workings } from '@jubb/core';

export const PRACTICES = ['hub', 'axle', 'shaft'] as const;
export type Practice = (typeof PRACTICES)[number];

/** One thing that was done; `figure` in degrees or mm. */
export interface Act {
  readonly do: 'seat' | 'read' | 'turn' | 'lock' | 'fit' | 'renew';
  readonly figure?: number;
}

/** What was done and what the instrument showed then. */
export interface Seen {
  readonly act: Act;
  readonly reading?: number;
}

export interface Replay {
  readonly seen: readonly Seen[];
  /** As it is, which only the model knows. */
  readonly truth: number;
  readonly window: { readonly from: number; readonly to: number };
  readonly quantity: 'length' | 'torque';
  readonly isLocked: boolean;
  /** Moves after the first reading. */
  readonly tries: number;
  /** What the working of this setting says now. */
  readonly guide: { readonly words: string; readonly figure: number; readonly act: Act['do'] } | undefined;
}

const SEAT_NM = 50;
const BACK_DEGREES = 90;
const PULLS = 3;
/** What lies beside the practice shaft. */
export const PRACTICE_SHELF = [0.05, 0.1, 0.15, 0.2, 0.3, 0.5, 1].map((thickness) => ({ thickness, count: 6 }));

/** All over again from the seed: the same acts give the same readings. */
export function replay(practice: Practice, seed: number, acts: readonly Act[]): Replay {
  switch (practice) {
    case 'hub':
      return replayHub(seed, acts);
    case 'axle':
      return replayAxle(seed, acts);
    case 'shaft':
      return replayShaft(seed, acts);
  }
}

function meanOf(read: () => number): number {
  return Array.from({ length: PULLS }, read).reduce((sum, one) => sum + one, 0) / PULLS;
}

function triesOf(acts: readonly Act[], moves: readonly Act['do'][]): number {
  const first = acts.findIndex((act) => act.do === 'read');
  return first === -1 ? 0 : acts.slice(first).filter((act) => moves.includes(act.do)).length;
}

function answer(id: string, input: object): Readonly<Record<string, unknown>> | undefined {
  const result = workings.run(id, input);
  return result?.ok ? result.run.output : undefined;
}

function replayHub(seed: number, acts: readonly Act[]): Replay {
  const hub = new PracticeHub(seed);
  const { pitch, slots, openings, window } = PRACTICE_HUB;
  let isLocked = false;
  let open: number | undefined;
  let expected: number | undefined;
  let lockShift = 0;
  const seen = acts.map((act): Seen => {
    switch (act.do) {
      case 'seat':
        hub.seat(SEAT_NM);
        hub.turn(-BACK_DEGREES);
        [isLocked, open] = [false, undefined];
        return { act };
      case 'turn':
        hub.turn(act.figure ?? 0);
        expected = open === undefined ? undefined : open - (pitch * (act.figure ?? 0)) / 360;
        [isLocked, open] = [false, expected];
        return { act };
      case 'lock':
        hub.lock();
        isLocked = true;
        return { act };
      default: {
        const reading = meanOf(() => hub.read());
        if (isLocked && expected !== undefined) lockShift = Math.max(0, Math.min(0.05, expected - reading));
        else open = reading;
        return { act, reading };
      }
    }
  });
  const last = seen.findLast(({ reading }) => reading !== undefined)?.reading;
  const from = isLocked && last !== undefined ? last + lockShift : open;
  const turned =
    last !== undefined && from !== undefined && from > 0 && acts.at(-1)?.do === 'read'
      ? answer('bearing.nut', { playNow: from, ...window, pitch, slots, openings, lockShift })
      : undefined;
  const isIn = isLocked && last !== undefined && last >= window.from && last <= window.to;
  const angle = Number(turned?.['angle'] ?? 0);
  return {
    seen,
    truth: hub.truth,
    window,
    quantity: 'length',
    isLocked,
    tries: triesOf(acts, ['turn']),
    guide:
      turned && !isIn
        ? {
            words: `${angle >= 0 ? 'Tighten' : 'Loosen'} ${Math.abs(angle)}°, then lock and read: ${Number(turned['play']).toFixed(3)} mm`,
            figure: angle,
            act: 'turn',
          }
        : undefined,
  };
}

function replayAxle(seed: number, acts: readonly Act[]): Replay {
  const axle = new PracticeAxle(seed);
  let readings: { angle: number; torque: number }[] = [];
  const seen = acts.map((act): Seen => {
    if (act.do === 'turn') axle.turn(act.figure ?? 0);
    else if (act.do === 'renew') {
      axle.renew();
      readings = [];
    } else {
      const reading = meanOf(() => axle.read());
      readings.push({ angle: axle.angle, torque: reading });
      return { act, reading };
    }
    return { act };
  });
  const step =
    readings.length > 0 && acts.at(-1)?.do === 'read' ? answer('bearing.crush-sleeve', { readings, ...PRACTICE_AXLE.window }) : undefined;
  const angle = Math.round(Number(step?.['step'] ?? 0));
  return {
    seen,
    truth: axle.truth,
    window: PRACTICE_AXLE.window,
    quantity: 'torque',
    isLocked: false,
    tries: acts.filter((act) => act.do === 'turn').length,
    guide:
      step?.['state'] === 'on'
        ? { words: `Turn on ${angle}°, turn it through and read`, figure: angle, act: 'turn' }
        : step?.['state'] === 'over'
          ? { words: 'Over: a new sleeve, never back off', figure: 0, act: 'renew' }
          : undefined,
  };
}

function replayShaft(seed: number, acts: readonly Act[]): Replay {
  const shaft = new PracticeShaft(seed);
  const seen = acts.map((act): Seen => {
    if (act.do === 'fit') {
      shaft.fit(act.figure ?? 0);
      return { act };
    }
    return { act, reading: meanOf(() => shaft.read()) };
  });
  const last = seen.at(-1)?.reading;
  const { window } = PRACTICE_SHAFT;
  const pack =
    last === undefined || (last >= window.from && last <= window.to)
      ? undefined
      : answer('bearing.shim', { measured: last, trial: shaft.pack, ...window, shelf: PRACTICE_SHELF });
  const thickness = Number(pack?.['thickness'] ?? 0);
  return {
    seen,
    truth: shaft.truth,
    window,
    quantity: 'length',
    isLocked: false,
    tries: triesOf(acts, ['fit']),
    guide: pack
      ? { words: `Put in ${String(pack['pack'])}, then read: ${Number(pack['gives']).toFixed(3)} mm`, figure: thickness, act: 'fit' }
      : undefined,
  };
}
