/** How far a shop is that is just opened: what it has of each thing that a first job takes. */
export interface BeginView {
  /** Its prices were looked at: an hour of labour, tax. */
  readonly isPriced: boolean;
  /** Who works here now, and how many of them have a PIN. */
  readonly people: number;
  readonly benches: number;
  readonly pins: number;
  readonly tools: number;
  readonly stock: number;
  /** Whom it orders from. */
  readonly suppliers: number;
  readonly sheets: number;
  readonly drafts: number;
  readonly tablets: number;
  readonly jobs: number;
  readonly handedOver: number;
  /** A backup was made, and one was brought back to see whether it is whole. */
  readonly isBackedUp: boolean;
  readonly isRehearsed: boolean;
  /** The demo has nothing to be begun. */
  readonly isDemo: boolean;
}

/** A sheet that comes with Jubb, of an invented model: what a sheet of its family is begun from where the shop has none. */
export interface ExampleLine {
  readonly family: string;
  readonly title: string;
  readonly steps: number;
  readonly tasks: readonly string[];
}

/** A tool that the shop has not and its sheets ask for. */
export interface LackingLine {
  readonly words: string;
  /** Titles of the sheets that ask for it. */
  readonly sheets: readonly string[];
}
