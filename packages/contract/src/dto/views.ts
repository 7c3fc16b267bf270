import type { AnyKeptEntry, Tool } from '../entry/kept.js';
import type { SheetFile } from '../sheet/file.js';
import type { HoldReason, Role, Stage } from '../words.js';

/** What the server answers. Dates are ISO texts in UTC. */

export interface PersonView {
  readonly id: string;
  readonly name: string;
  readonly login: string;
  readonly role: Role;
}

export interface SessionView {
  readonly person: PersonView;
  /** To be sent back in the `x-jubb-csrf` header with every change. */
  readonly csrf: string;
  readonly shop: ShopView;
}

export interface ShopView {
  readonly name: string;
  readonly zone: string;
  readonly currency: string;
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
  readonly unit: { readonly id: string; readonly name: string; readonly serial: string };
  readonly machine: { readonly id: string; readonly name: string; readonly serial: string };
  readonly customer: { readonly id: string; readonly name: string; readonly phone: string | null };
}

export interface JobView extends JobHead {
  readonly sheet: { readonly revisionId: string; readonly revision: number; readonly file: SheetFile };
  readonly entries: readonly AnyKeptEntry[];
  readonly people: readonly PersonView[];
  readonly tools: readonly Tool[];
}

export interface TodayLine {
  readonly jobId: string;
  readonly number: number;
  readonly unit: string;
  readonly machine: string;
  readonly customer: string;
  readonly stage: Stage;
  readonly next: string;
  readonly left: number;
  readonly hold: Hold | null;
  readonly promise: string;
  readonly openEnds: number;
  /** Something outside the job that the next act waits for. */
  readonly waits: string | null;
}

export interface TodayView {
  readonly now: readonly TodayLine[];
  readonly waiting: readonly TodayLine[];
  readonly crib: readonly { readonly tag: string; readonly name: string; readonly due: string }[];
}

export interface SheetLine {
  readonly key: string;
  readonly revisionId: string;
  readonly revision: number;
  readonly status: string;
  readonly title: string;
  readonly family: string;
  readonly make: string;
  readonly model: string;
  readonly machine: string;
}

export interface SheetView extends SheetLine {
  readonly file: SheetFile;
  readonly hash: string;
  readonly approvedBy: string | null;
  readonly approvedAt: string | null;
}

export interface ChainView {
  readonly whole: boolean;
  readonly entries: number;
  readonly hash: string;
  /** Number of the first entry whose hash does not follow. */
  readonly brokenAt: number | null;
}

/** RFC 9457 problem details, with one line for each field. */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail?: string;
  readonly errors?: readonly FieldProblem[];
  /** For a change that came second: what stands now. */
  readonly current?: unknown;
}

export interface FieldProblem {
  readonly field: string;
  readonly given?: string;
  readonly allowed: string;
  readonly line?: number;
}

export interface ServerEvent {
  readonly type: 'entries' | 'job' | 'sheet';
  readonly jobId?: string;
  readonly seq?: number;
}

export interface CustomerLine {
  readonly id: string;
  readonly name: string;
  readonly phone: string | null;
  readonly machines: readonly {
    readonly id: string;
    readonly name: string;
    readonly serial: string;
    readonly units: readonly { readonly id: string; readonly name: string; readonly serial: string }[];
  }[];
}

export interface HealthView {
  readonly version: string;
  readonly database: 'up' | 'down';
  /** Nobody works here yet: the first foreman is to be named. */
  readonly firstRun?: true;
}
