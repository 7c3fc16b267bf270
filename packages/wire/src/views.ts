import type { ProblemCode } from './problems.js';
import type { PayloadOf, PersonView, FailedBy, SealFailure, ShopHours, Warm, TodayTold } from '@jubb/book';
import type { Quantity } from '@jubb/core';
import type { CompletePart, SheetFile, Difference, JobScope, Role, Tool } from '@jubb/sheet';
import type { ShopBody } from './shop.js';

/** What the server answers. Dates are ISO texts in UTC. */

export interface SessionView {
  readonly person: PersonView;
  /** To be sent back in the `x-jubb-csrf` header with every change. */
  readonly csrf: string;
  readonly shop: ShopView;
  readonly tablet: TabletView | null;
  /** Ids of all who proved themselves in this session: what they made here may be sent. */
  readonly people: readonly string[];
  /** What whoever looks after the machine types there. */
  readonly command: string;
}

export interface ShopView extends Readonly<ShopBody> {
  /** Nothing until somebody says when the shop is open. */
  readonly hours: ShopHours | null;
  readonly currency: string;
  /** SHA-256 of its picture. */
  readonly logo: string | null;
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
  /** Part numbers, threads and variants, in small letters: what the list is searched by. */
  readonly words: string;
  readonly complete: readonly CompletePart[];
}

export interface SheetView extends Omit<SheetLine, 'words'> {
  readonly file: SheetFile;
  readonly hash: string;
  /** Of a draft: goes up with each change. */
  readonly version: number;
  readonly editedBy: string | null;
  readonly editedAt: string;
  readonly jobs: number;
  readonly approvedBy: string | null;
  readonly approvedAt: string | null;
}

/** A revision of a sheet, in its line of revisions. */
export interface RevisionLine {
  readonly revisionId: string;
  readonly revision: number;
  readonly status: string;
  readonly hash: string;
  readonly approvedBy: string | null;
  readonly approvedAt: string | null;
  readonly jobs: number;
}

/** What a file would change, before it does. */
export interface ImportView {
  readonly key: string;
  readonly title: string;
  readonly revision: number;
  /** The revision it is held against; none for a sheet that is new here. */
  readonly against: {
    readonly revision: number;
    readonly status: string;
    /** Of a draft that is there: which one it is, and whose work it is. */
    readonly draft?: { readonly version: number; readonly editedBy: string; readonly editedAt: string };
  } | null;
  readonly differences: readonly Difference[];
  /** The draft that it became; null when it was only looked at. */
  readonly revisionId: string | null;
}

/** 'Next time', from a job. */
export interface ProposalView {
  readonly entryId: string;
  readonly jobId: string;
  readonly jobNumber: number;
  readonly person: string;
  readonly takenAt: string;
  readonly text: string;
  readonly list: string | null;
  readonly line: string | null;
  /** Figures that worked or were found, each with the field of the line that it is for. */
  readonly figures: readonly { readonly field: string | null; readonly figure: string }[];
}

/** What a unit went through here before. */
export interface UnitHistory {
  readonly jobs: readonly {
    readonly id: string;
    readonly number: number;
    readonly bookedAt: string;
    readonly closedAt: string | null;
    readonly complaint: string;
    readonly sheetKey: string;
    readonly scope: JobScope | null;
    /** Parts that were renewed, with the reason that was kept. */
    readonly renewed: readonly { readonly part: string; readonly reason: string | null; readonly cause: FailedBy | null }[];
    /** Seals that had failed, and how. */
    readonly seals: readonly { readonly part: string; readonly why: SealFailure }[];
  }[];
}

/** What identification needs of the approved sheets. */
export interface IdentitySheet {
  readonly key: string;
  readonly revisionId: string;
  readonly file: Pick<SheetFile, 'title' | 'family' | 'features' | 'variants'>;
}

/** What a tool that was made looks like, and how often it was used again. */
export interface Made {
  readonly pictures: readonly PayloadOf<'photo'>[];
  readonly served: number;
  readonly failed: number;
}

/** A tool that was made on a job. */
export interface MadeTool {
  readonly id: string;
  readonly tool: PayloadOf<'tool-made'>;
  readonly jobId: string;
  readonly jobNumber: number;
  readonly person: string;
  readonly at: string;
  readonly model: string;
  /** The step that it was made for, in words; null where it was made for none. */
  readonly step: string | null;
  readonly made: Made;
}

/** What somebody kept at a step of another job of the same model. */
export interface KnowHow {
  readonly id: string;
  /** The step in the sheet, without its side. */
  readonly step: string;
  readonly kept:
    | { readonly kind: 'note'; readonly payload: PayloadOf<'note'> }
    | { readonly kind: 'clip'; readonly payload: PayloadOf<'clip'> }
    | { readonly kind: 'photo'; readonly payload: PayloadOf<'photo'> }
    | { readonly kind: 'tool-made'; readonly payload: PayloadOf<'tool-made'> };
  /** Of a tool that was made. */
  readonly made: Made | null;
  readonly jobId: string;
  readonly jobNumber: number;
  readonly person: string;
  readonly at: string;
}

/** What an earlier rebuild of the same unit found at a limit. */
export interface EarlierReading {
  readonly limit: string;
  readonly jobNumber: number;
  readonly at: string;
  /** Base units. */
  readonly readings: readonly number[];
  readonly warm: Warm | null;
}

/** How often units of one sheet came back within a year of their hand-over. */
export interface ComebackView {
  readonly handedOver: number;
  readonly cameBack: number;
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
  /** Which refusal it is; it never changes, whatever its words do. */
  readonly code: ProblemCode;
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

export type ServerEvent =
  | { readonly type: 'entries'; readonly jobId: string; readonly seq: number }
  | { readonly type: 'job'; readonly jobId: string }
  | { readonly type: 'sheet' }
  | { readonly type: 'file'; readonly file: string }
  | { readonly type: 'instruments' }
  | { readonly type: 'stores' }
  | { readonly type: 'benches' }
  | { readonly type: 'notices' }
  | { readonly type: 'lines'; readonly lines: readonly LiveLine[] }
  /** A session is over, by the hash of its id: between the servers alone. */
  | { readonly type: 'session-over'; readonly session: string };

/** What a page hears. */
export type PageEvent = Exclude<ServerEvent, { readonly type: 'session-over' }> | TodayTold;

/** A tablet or screen that somebody logged in on with a password. */
export interface TabletView {
  readonly id: string;
  readonly name: string;
}

/** Who may take over a tablet by PIN. */
export interface TabletPeople {
  readonly tablet: TabletView | null;
  /** Who logged in here with their password once. */
  readonly people: readonly {
    readonly id: string;
    readonly name: string;
    readonly role: Role;
    readonly hasPin: boolean;
    readonly pinDigits: number;
  }[];
  /** So many digits a PIN must have at least. */
  readonly pinDigits: number;
}

/** An instrument of the crib that sends by itself, and where it sends to. */
export interface InstrumentView {
  readonly id: string;
  readonly tool: Tool;
  /** The tablet that it is paired with. */
  readonly tablet: TabletView | null;
  /** A click wrench: it has no figure. */
  readonly clicks: boolean;
  readonly last: LiveLine | null;
}

/** A line of an instrument as it goes to the benches. */
export interface LiveLine {
  readonly instrumentId: string;
  readonly toolId: string;
  readonly tabletId: string | null;
  /** Count of the instrument's lines. */
  readonly n: number;
  readonly at: string;
  /** In base units; null for a click, which has no figure. */
  readonly base: number | null;
  readonly quantity: Quantity;
  /** Unit symbol in which it was sent. */
  readonly unit: string;
  /** Somebody pressed its key, or the pull is over: to be taken. */
  readonly taken: boolean;
  /** Degrees turned since snug, of a wrench that counts them. */
  readonly angle?: number;
  readonly battery?: 'low';
  /** Why it must not be used as it is; none when it may. */
  readonly marked?: string;
}

/** What became of lines that an instrument sent. */
export interface LinesView {
  readonly kept: number;
  /** Lines that were here already. */
  readonly known: number;
  readonly refused: readonly FieldProblem[];
}

/** How much of a file is here. */
export interface FileState {
  readonly have: number;
  readonly whole: boolean;
}

export interface HealthView {
  readonly version: string;
  readonly database: 'up' | 'down';
  /** Nobody works here yet: the first foreman is to be named. */
  readonly firstRun?: true;
}

/** Something that the demo has to show, and where. */
export interface SightLine {
  readonly words: string;
  readonly path: string;
}
