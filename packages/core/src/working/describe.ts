import type { Quantity } from '../quantity/units.js';
import type { Corner, Hole } from '../seals/outline.js';
import type { Result } from './issues.js';

/** The quantity of a field, or the name of a choice field that says which it is. */
export type FieldQuantity = Quantity | { readonly from: string };

interface FieldBase {
  readonly name: string;
  readonly label: string;
  readonly symbol?: string;
  /** One line for the person who fills it in. */
  readonly help: string;
  /** May be left out, and has no default. */
  readonly optional?: true;
  /** Asked only when a choice field stands at one of these, and needed then unless it is optional; taken, and without effect, otherwise. */
  readonly onlyFor?: { readonly field: string; readonly choices: readonly string[] };
}

export interface NumberField extends FieldBase {
  readonly kind: 'number';
  readonly quantity: FieldQuantity;
  /** A part of a whole: written in per cent, and read so where text has no unit. */
  readonly share?: true;
  /** In the base unit; both ends included. */
  readonly min?: number;
  readonly max?: number;
  readonly above?: number;
  readonly default?: number;
  /** A figure typed without a unit is in that which this choice field says; where it says none it is asked. */
  readonly bareIn?: { readonly field: string; readonly units: Readonly<Record<string, string>> };
}

export interface ListField extends FieldBase {
  readonly kind: 'list';
  readonly quantity: FieldQuantity;
  readonly min?: number;
  readonly max?: number;
  readonly fewest: number;
  readonly most: number;
  readonly default?: readonly number[];
}

export interface ChoiceField extends FieldBase {
  readonly kind: 'choice';
  readonly choices: readonly { readonly id: string; readonly label: string }[];
  readonly default?: string;
}

export interface TextField extends FieldBase {
  readonly kind: 'text';
  readonly longest: number;
  readonly default?: string;
}

export interface TableField extends FieldBase {
  readonly kind: 'table';
  readonly columns: readonly {
    readonly name: string;
    readonly label: string;
    readonly quantity: Quantity | 'text' | 'yes-no';
    readonly share?: true;
  }[];
  readonly fewest?: number;
  readonly most?: number;
}

export type Field = NumberField | ListField | ChoiceField | TextField | TableField;
export type Row = Readonly<Record<string, number | string | boolean>>;

type ValueOf<F extends Field> = F extends { kind: 'number' }
  ? number
  : F extends { kind: 'list' }
    ? readonly number[]
    : F extends { kind: 'choice'; choices: readonly { readonly id: infer Id }[] }
      ? Id
      : F extends { kind: 'table' }
        ? readonly Row[]
        : string;

/** What may stay empty, or is not asked at all, is not there. */
type IsMissing<F> = F extends { optional: true }
  ? true
  : F extends { default: unknown }
    ? false
    : F extends { onlyFor: unknown }
      ? true
      : false;

/** The plain object that a list of fields describes. */
export type ValuesOf<F extends readonly Field[]> = {
  readonly [K in F[number] as K['name']]: IsMissing<K> extends true ? ValueOf<K> | undefined : ValueOf<K>;
};

type MayBeLeftOut<F> = F extends { optional: true } | { default: unknown } | { onlyFor: unknown } ? true : false;
type TypedOf<F extends Field> = F extends { kind: 'number' } ? number | string : ValueOf<F>;

/** What a working is given by whoever knows it: base units, or text with a unit; what has a default may be left out. */
export type GivenOf<F extends readonly Field[]> = {
  readonly [K in F[number] as MayBeLeftOut<K> extends true ? never : K['name']]: TypedOf<K>;
} & {
  readonly [K in F[number] as MayBeLeftOut<K> extends true ? K['name'] : never]?: TypedOf<K> | undefined;
};

/** Where a formula or a constant comes from. */
export interface Source {
  readonly kind: 'standard' | 'handbook' | 'derivation' | 'common practice';
  readonly document: string;
  readonly edition?: string;
  readonly clause?: string;
  /** What of the working rests on it. */
  readonly for: string;
  /** The value was written down from memory, not with the document open. */
  readonly fromMemory?: true;
}

/** One line of the way to the result: what is done, the formula, the formula with its numbers. */
export interface ExplainStep {
  readonly say: string;
  readonly formula?: string;
  readonly numbers?: string;
}

export type Drawing =
  | {
      readonly kind: 'limit-strip';
      readonly readings: readonly number[];
      readonly mean: number;
      readonly from?: number | undefined;
      readonly to?: number | undefined;
      readonly guard: number;
      readonly verdict: string;
      readonly quantity: Quantity;
    }
  | {
      readonly kind: 'joint-plate';
      readonly points: readonly { readonly x: number; readonly y: number }[];
      readonly order: readonly number[];
    }
  | {
      readonly kind: 'chart';
      readonly x: string;
      readonly y: string;
      readonly lines: readonly {
        readonly name: string;
        readonly points: readonly (readonly [number, number])[];
        /** Points by themselves, not joined. */
        readonly dots?: true;
      }[];
      readonly levels: readonly { readonly name: string; readonly at: number }[];
    }
  | {
      /** Readings round one turn, the first at 0°. */
      readonly kind: 'round';
      readonly readings: readonly number[];
      readonly highAt: number;
      readonly eccentricity: number;
    }
  | {
      readonly kind: 'face';
      readonly points: readonly { readonly x: number; readonly y: number; readonly off: number }[];
    }
  | {
      readonly kind: 'bridge';
      readonly diodes: readonly { readonly name: string; readonly state: string }[];
    }
  | {
      readonly kind: 'tornado';
      readonly base: number;
      readonly bars: readonly { readonly name: string; readonly low: number; readonly high: number }[];
    }
  | {
      /** Shims as they lie, the first against the shoulder; mm. */
      readonly kind: 'pack';
      readonly layers: readonly number[];
      readonly wanted: number;
    }
  | {
      /** A pattern on a tooth, each side: along from toe 0 to heel 1, up from flank 0 to face 1. */
      readonly kind: 'contact';
      readonly drive: { readonly along: number; readonly up: number };
      readonly coast: { readonly along: number; readonly up: number };
    }
  | {
      /** Bars of allowed sizes over the nominal size, µm; marks where something was measured. */
      readonly kind: 'fit';
      readonly bars: readonly { readonly name: string; readonly from: number; readonly to: number; readonly at?: number | undefined }[];
    }
  | {
      /** A ring in its groove, in section, mm: what is left of it, how high and how wide its room is. */
      readonly kind: 'gland';
      readonly gland: 'piston' | 'rod' | 'face-inside' | 'face-outside';
      readonly section: number;
      readonly height: number;
      readonly width: number;
    }
  | {
      /** A lip seal in its bore over a worn track, in section, mm from the face of the housing inwards. */
      readonly kind: 'seal-section';
      readonly bore: number;
      readonly width: number;
      readonly lip: number;
      readonly inset: number;
      readonly track: { readonly from: number; readonly to: number; readonly worn: number };
      readonly drain?: number | undefined;
      readonly sleeve: boolean;
    }
  | {
      /** A flat part from above, mm, y upwards: to be cut or laid at true size. Outlines are closed; `along` is a bead laid on it, its width beside it. */
      readonly kind: 'flat';
      readonly outlines: readonly (readonly Corner[])[];
      readonly holes: readonly Hole[];
      readonly along?: { readonly lines: readonly (readonly Corner[])[]; readonly wide: number } | undefined;
    }
  | {
      /** A shaft with marks along it, mm from a fixed point of it: to be held against it at true size. */
      readonly kind: 'marks';
      readonly shaft: number;
      readonly marks: readonly { readonly name: string; readonly at: number }[];
      readonly between?: { readonly from: number; readonly to: number } | undefined;
    }
  | {
      /** Rings as they lie, one behind the other, the pressure from the left; `opens` where a lip is open to. */
      readonly kind: 'stack';
      readonly rings: readonly {
        readonly name: string;
        readonly shape: 'guide' | 'spreader' | 'lip' | 'support' | 'scraper' | 'ring' | 'back-up';
        readonly opens?: 'left' | 'right' | undefined;
        readonly gapAt?: number | undefined;
      }[];
    }
  | {
      readonly kind: 'setting-line';
      readonly now: number;
      readonly from: number;
      readonly to: number;
      readonly after: number;
      readonly angle: number;
      readonly slots: number;
      readonly openings: readonly number[];
    };

/** What a job knows without asking: the ends and the aim of a window, its last reading or all of them, the shims that are free, an output of the last time. */
export type Known = 'from' | 'to' | 'aim' | 'last' | 'readings' | 'shelf' | `before.${string}` | `seal.${OfSeal}`;

/** What a sheet's line of a seal says: of a lip seal shaft, bore and width, of a ring inside and section, how far in it may go, and what of the stores is free and in date. */
export type OfSeal = 'shaft' | 'bore' | 'width' | 'inside' | 'section' | 'bead' | 'material' | 'medium' | 'deepest' | 'shelf';

/** Where a working serves at a job: it is offered there without another file saying so. */
export interface Serves {
  /** While parts are measured, while the unit is put together, to bring a setting to where it is to be, or where a seal goes in. */
  readonly at: 'measure' | 'build' | 'setting' | 'seal';
  /** Families of units, as sheets name them; every one where none is named. */
  readonly families?: readonly string[];
  readonly butNot?: readonly string[];
  /** Of a setting or a seal: its kinds; and what a setting is set by, whatever it is where none is named. */
  readonly kinds?: readonly string[];
  readonly methods?: readonly string[];
  /** The lowest is offered first; 1 where nothing is said. */
  readonly rank?: number;
  /** Words of the part that it is likely about: proposed, and a person's to change. */
  readonly about?: RegExp;
  /** Input → what of the job it is given. */
  readonly preset?: Readonly<Record<string, Known>>;
  /** Outputs that say which shims go in. */
  readonly packs?: readonly string[];
  /** The shims of other settings are moved from side to side by it: they are not taken out of stores again. */
  readonly shifts?: true;
}

export interface Working<I extends readonly Field[] = readonly Field[], O extends readonly Field[] = readonly Field[]> {
  /** area.name, never changed; a renamed one keeps its old id in `aliases`. */
  readonly id: string;
  readonly aliases?: readonly string[];
  /** The question it answers. */
  readonly title: string;
  readonly area: string;
  readonly inputs: I;
  readonly outputs: O;
  readonly sources: readonly Source[];
  readonly cautions: readonly string[];
  readonly serves?: readonly Serves[];
  /** It searches: too long for a key to be waited for, so that a page has a worker run it. */
  readonly heavy?: true;
  /** An input that runs, shown by the page and the command line and run by the tests. */
  readonly example: Readonly<Record<string, unknown>>;
  compute(input: ValuesOf<I>): Result<ValuesOf<O>>;
  explain(input: ValuesOf<I>, output: ValuesOf<O>): readonly ExplainStep[];
  draw?(input: ValuesOf<I>, output: ValuesOf<O>): Drawing | undefined;
}
