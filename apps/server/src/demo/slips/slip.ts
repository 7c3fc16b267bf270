import type { EntryKind, Reckoned } from '@jubb/book';
import type { SheetFile, Step, Tool } from '@jubb/sheet';
import type { DemoEntry } from '@jubb/play';

/** What is about to be done at a step, as it would be done rightly. */
export interface Moment {
  /** The sheet as the job goes by it. */
  readonly sheet: SheetFile;
  readonly step: Step;
  readonly acts: readonly DemoEntry[];
  readonly state: Reckoned;
  readonly tools: readonly Tool[];
}

/** What is done in its place. */
export interface Slipped {
  readonly acts: readonly DemoEntry[];
  /** The hand goes on to the next step, whatever this one still wants. */
  readonly goesOn?: true;
  /** Who makes them, where it is not who would. */
  readonly by?: 'hand' | 'foreman' | 'counter';
}

/** One kind of mistake, as a bench makes it. */
export interface Slip {
  readonly id: string;
  readonly words: string;
  /** Why nothing here can see it, for one that is known to pass. */
  readonly passes?: string;
  /** What is done in the place of what is right; nothing where it cannot happen. */
  readonly make: (at: Moment) => Slipped | undefined;
}

type Payload = Readonly<Record<string, unknown>>;

export function payloadOf(act: DemoEntry): Payload {
  return act.payload as Payload;
}

/** The first act of a kind done otherwise; nothing where there is none, or where it cannot be done so. */
export function otherwise(kind: EntryKind, change: (payload: Payload, at: Moment, act: DemoEntry) => Payload | undefined): Slip['make'] {
  return (at) => {
    const index = at.acts.findIndex((act) => act.kind === kind && change(payloadOf(act), at, act) !== undefined);
    const act = at.acts[index];
    return act && { acts: at.acts.with(index, { ...act, payload: change(payloadOf(act), at, act)! }) };
  };
}

/** The first act of a kind left out. */
export function leftOut(kind: EntryKind, isIt: (payload: Payload, at: Moment) => boolean = () => true): Slip['make'] {
  return (at) => {
    const index = at.acts.findIndex((act) => act.kind === kind && isIt(payloadOf(act), at));
    return index < 0 ? undefined : { acts: at.acts.toSpliced(index, 1) };
  };
}

/** A whole step passed over. */
export function passedOver(isIt: (step: Step, at: Moment) => boolean): Slip['make'] {
  return (at) => (isIt(at.step, at) ? { acts: [], goesOn: true } : undefined);
}
