import type { BenchKind, Role, HoldReason, Stage, JobScope, SheetFile, Tool } from '@jubb/sheet';
import type { AnyKeptEntry } from './entries/kept.js';
import type { Licence } from './licences.js';
/** What is known of a job, of all jobs today, and of who works on them. Dates are ISO texts in UTC. */

export interface PersonView {
  readonly id: string;
  readonly name: string;
  readonly login: string;
  readonly role: Role;
  /** Certificates that the shop keeps of them, where it is asked with whom works on a job. */
  readonly licences?: readonly Licence[] | null;
}

export interface Hold {
  readonly reason: HoldReason;
  readonly words: string;
  readonly since: string;
}

export interface JobHead {
  readonly id: string;
  readonly number: number;
  readonly stage: Stage;
  readonly complaint: string;
  readonly promise: string;
  readonly estimateMinor: number;
  readonly hold: Hold | null;
  readonly version: number;
  readonly bookedAt: string;
  readonly closedAt: string | null;
  readonly scope: JobScope | null;
  readonly unit: { readonly id: string; readonly name: string; readonly serial: string };
  readonly machine: { readonly id: string; readonly name: string; readonly serial: string };
  readonly customer: { readonly id: string; readonly name: string; readonly phone: string | null };
}

export interface JobView extends JobHead {
  /** The sheet as this job sees it. */
  readonly sheet: {
    readonly revisionId: string;
    readonly revision: number;
    readonly status: string;
    readonly file: SheetFile;
    /** Names of the tasks that were not picked. */
    readonly notOpened: readonly string[];
    /** A newer approved revision, which changes nothing here by itself. */
    readonly newer: { readonly revisionId: string; readonly revision: number } | null;
  };
  /** What earlier jobs of this machine left owed. */
  readonly owed: readonly OwedLine[];
  /** None for a unit that was not here before. */
  readonly asLeft: AsLeft | null;
  readonly entries: readonly AnyKeptEntry[];
  readonly people: readonly PersonView[];
  readonly tools: readonly Tool[];
}

/** How a unit left the shop the last time: what it is now. */
export interface AsLeft {
  readonly jobId: string;
  readonly number: number;
  readonly closedAt: string;
  /** Ways that were gone, by the step's ref and title, with who agreed where they depart from the maker. */
  readonly ways: readonly {
    readonly step: string;
    readonly title: string;
    readonly way: string;
    readonly name: string;
    readonly agreed?: { readonly foreman: string; readonly customer: string };
  }[];
  readonly parts: readonly { readonly name: string; readonly fate: 'renew' | 'rework'; readonly reason: string | null }[];
}

/** Something put off on an earlier job of a machine. */
export interface OwedLine {
  readonly entryId: string;
  readonly jobId: string;
  readonly jobNumber: number;
  readonly machineId: string;
  readonly unit: string;
  readonly machine: string;
  readonly customer: string;
  readonly what: string;
  readonly told: string;
  readonly due: string | null;
  readonly hours: number | null;
}

export interface TodayLine {
  readonly jobId: string;
  readonly number: number;
  /** How many entries it speaks of, and which version of what the job says. */
  readonly seq: number;
  readonly version: number;
  readonly unit: string;
  readonly machine: string;
  readonly customer: string;
  readonly stage: Stage;
  readonly next: string;
  readonly left: number;
  readonly hold: Hold | null;
  readonly promise: string;
  readonly openEnds: readonly string[];
  /** Why the next act cannot be done now; null when it can. */
  readonly waits: Waits | null;
  /** What can be done at it while the next act waits. */
  readonly also: readonly string[];
  /** The machine that its next act takes, where that can be done now. */
  readonly bench?: BenchKind;
  /** What only the foreman can settle on it. */
  readonly toSettle: readonly string[];
  /** Who recorded something on it last; null while nobody did. */
  readonly last: { readonly personId: string; readonly name: string; readonly at: string } | null;
}

/** What an act waits for, and till when, where a clock says so. */
export interface Waits {
  readonly words: string;
  readonly until?: string;
}

/** A clock that runs on an open job. */
export interface TodayClock {
  readonly jobId: string;
  readonly number: number;
  readonly entryId: string;
  readonly what: string;
  readonly until: string;
  /** Hot so long: not to be touched. */
  readonly hot?: true;
  /** The step that waits for it. */
  readonly then: { readonly step: string; readonly stage: Stage; readonly title: string } | null;
}

export interface TodayView {
  /** Every open job, by its promise. */
  readonly lines: readonly TodayLine[];
  readonly clocks: readonly TodayClock[];
  /** Owed, and due within a month: those that are due first, and how many more there are. */
  readonly owed: readonly OwedLine[];
  readonly owedMore: number;
  readonly crib: readonly { readonly tag: string; readonly name: string; readonly due: string }[];
  readonly notices: readonly NoticeView[];
}

/** What somebody has to know, until they put it away. */
export interface NoticeView {
  readonly id: string;
  readonly words: string;
  readonly at: string;
}

/** What a page is told of Today: the jobs that changed, as they are now. */
export interface TodayTold {
  readonly type: 'today';
  readonly lines: readonly TodayLine[];
  /** All that run on these jobs. */
  readonly clocks: readonly TodayClock[];
  /** Jobs that are not open any more. */
  readonly gone: readonly string[];
}
